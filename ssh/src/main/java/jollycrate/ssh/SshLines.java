package jollycrate.ssh;

import java.io.IOException;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.SmallFile;
import jollycrate.file.Trees;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostKey;
import jollycrate.host.HostLine;
import jollycrate.host.HostLines;
import jollycrate.host.Ran;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Reaches other machines over SSH; nothing is installed there. */
public final class SshLines implements HostLines {
  private static final Duration LOOKS_WITHIN = Duration.ofSeconds(30);
  private static final Comparator<KnownKeys.Kept> REVOKED_FIRST =
      Comparator.comparing(KnownKeys.Kept::revoked).reversed();
  private static final String[] ONLY_LOOKING = {
    "StrictHostKeyChecking=accept-new",
    "GlobalKnownHostsFile=/dev/null",
    "PreferredAuthentications=none",
    "HashKnownHosts=no",
    "CheckHostIP=no",
    "ControlPath=none",
    "BatchMode=yes"
  };

  @Override
  public HostLine open(Reach reach) {
    Destination destination = Destination.of(reach);
    try {
      return line(reach, destination, new Wire(new Connection(reach, destination)));
    } catch (Connection.NoShell e) {
      throw new UnreachableException(noShell(reach, destination, e.getMessage()));
    } catch (IOException e) {
      throw new UnreachableException(
          "Cannot reach '" + reach.name() + "' (" + destination.shown() + "): " + e.getMessage());
    }
  }

  private static HostLine line(Reach reach, Destination destination, Wire wire) {
    SshSight sight = new SshSight(wire);
    Map<String, String> environment = environment(sight);
    Host host =
        new Host(
            reach.name(),
            false,
            new SshFiles(sight),
            new SshProcesses(sight, wire),
            sight,
            environment);
    return new Line(host, destination.shown(), destination.hostName(), wire, sight);
  }

  private static String noShell(Reach reach, Destination destination, String errors) {
    String begin = "Cannot work on '" + reach.name() + "' (" + destination.shown() + "): ";
    String said = errors.isEmpty() ? "" : " It says: " + errors;
    return reach
        .sudo()
        .map(
            user ->
                begin
                    + "sudo does not let "
                    + destination.user()
                    + " become "
                    + user
                    + " without a password. Let an administrator write into /etc/sudoers.d: "
                    + destination.user()
                    + " ALL=("
                    + user
                    + ") NOPASSWD: ALL."
                    + said)
        .orElse(begin + "it lets one in, but starts no shell." + said);
  }

  /** What servers started there may see, as a log-in there has it. */
  private static Map<String, String> environment(SshSight sight) {
    String names = String.join(" ", Host.PASSED_ON);
    String script =
        "for v in "
            + names
            + "; do eval \"[ -z \\\"\\${$v+x}\\\" ] || printf '%s=%s\\\\0' $v \\\"\\$$v\\\"\"; done";
    Map<String, String> environment = new HashMap<>();
    for (String variable : sight.read(script).text().split("\0")) {
      int equals = variable.indexOf('=');
      if (equals > 0) {
        environment.put(variable.substring(0, equals), variable.substring(equals + 1));
      }
    }
    environment.putAll(Host.LOCALE);
    return environment;
  }

  @Override
  public Optional<String> missing() {
    return OpenSsh.isHere() ? Optional.empty() : Optional.of(OpenSsh.MISSING);
  }

  @Override
  public HostKey key(Reach reach) {
    Destination destination = Destination.of(reach);
    PublicKey shown = shownKey(reach, destination);
    KnownKeys known = new KnownKeys(destination.knownHosts());
    List<KnownKeys.Kept> all =
        known.all(destination.keptName()).stream()
            .filter(kept -> kept.key().type().equals(shown.type()))
            .toList();
    Optional<KnownKeys.Kept> kept =
        Stream.concat(
                all.stream().filter(one -> one.key().equals(shown)).sorted(REVOKED_FIRST),
                all.stream().filter(one -> !one.revoked()))
            .findFirst();
    return new HostKey(
        shown.type(),
        shown.fingerprint(),
        kept.map(KnownKeys.Kept::fingerprint),
        kept.filter(KnownKeys.Kept::revoked).isPresent(),
        kept.map(KnownKeys.Kept::file).orElseGet(destination::ownKnownHosts),
        kept.map(KnownKeys.Kept::line).orElse(0));
  }

  @Override
  public void trust(Reach reach, HostKey key) {
    Destination destination = Destination.of(reach);
    PublicKey shown = shownKey(reach, destination);
    if (!shown.fingerprint().equals(key.fingerprint())) {
      throw new UnreachableException(
          "Cannot trust '"
              + reach.name()
              + "': it shows "
              + shown.fingerprint()
              + " now, and not "
              + key.fingerprint());
    }
    KnownKeys.add(destination.ownKnownHosts(), destination.keptName(), shown);
  }

  /** Nobody logs in: a client that knows no machine writes down which key it sees. */
  private static PublicKey shownKey(Reach reach, Destination destination) {
    Path seen = Trees.temporary().resolve("known_hosts");
    List<String> command = OpenSsh.to(destination, ONLY_LOOKING);
    command.addAll(List.of("-o", "UserKnownHostsFile=" + seen, "--", destination.alias(), "true"));
    try {
      Ran ran = OpenSsh.run(command, LOOKS_WITHIN);
      return Stream.of(seen)
          .filter(Files::exists)
          .flatMap(file -> KnownKeys.keysIn(text(file)).stream())
          .findFirst()
          .orElseThrow(() -> new Refusal(reach, destination).of(ran.errors(), Optional.empty()));
    } catch (IOException e) {
      throw HostException.cannot("look at", seen, e);
    } finally {
      Trees.discard(seen.getParent());
    }
  }

  private static String text(Path file) {
    try {
      return SmallFile.text(file, SmallFile.MOST_BYTES);
    } catch (IOException e) {
      throw HostException.cannot("read", file, e);
    }
  }

  private record Line(Host host, String told, String address, Wire wire, SshSight sight)
      implements HostLine {
    @Override
    public Socket socket() {
      sight.settle();
      return new SocketThere(wire.connection());
    }

    @Override
    public long turns() {
      return wire.turns();
    }

    @Override
    public void close() {
      wire.close();
    }
  }
}
