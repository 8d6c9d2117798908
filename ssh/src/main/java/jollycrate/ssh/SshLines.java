package jollycrate.ssh;

import java.io.IOException;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Host;
import jollycrate.host.HostKey;
import jollycrate.host.HostLine;
import jollycrate.host.HostLines;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Reaches other machines over SSH; nothing is installed there. */
public final class SshLines implements HostLines {
  @Override
  public HostLine open(Reach reach) {
    Destination destination = Destination.of(reach);
    String before = reach.sudo().map(user -> "sudo -n -u " + Quote.word(user) + " -- ").orElse("");
    try {
      return line(
          reach,
          destination,
          new Wire(() -> new Connection(new Login(reach, destination).session(), before)));
    } catch (Connection.NoShell e) {
      throw new UnreachableException(noShell(reach, destination, e.getMessage()));
    } catch (IOException e) {
      throw new UnreachableException(
          "Cannot reach '" + reach.name() + "' (" + destination.told() + "): " + e.getMessage());
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
    return new Line(host, destination.told(), destination.hostName(), wire, sight);
  }

  private static String noShell(Reach reach, Destination destination, String errors) {
    String begin = "Cannot work on '" + reach.name() + "' (" + destination.told() + "): ";
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
  public HostKey key(Reach reach) {
    Destination destination = Destination.of(reach);
    byte[] key = new Login(reach, destination).shownKey();
    KnownKeys known = new KnownKeys(destination.knownHosts());
    Optional<KnownKeys.Kept> kept = known.kept(destination.keptName(), typeOf(key));
    return new HostKey(
        typeOf(key),
        KnownKeys.fingerprint(key),
        kept.map(KnownKeys.Kept::fingerprint),
        kept.map(KnownKeys.Kept::file).orElse(known.own()),
        kept.map(KnownKeys.Kept::line).orElse(0));
  }

  @Override
  public void trust(Reach reach, HostKey key) {
    Destination destination = Destination.of(reach);
    byte[] shown = new Login(reach, destination).shownKey();
    if (!KnownKeys.fingerprint(shown).equals(key.fingerprint())) {
      throw new UnreachableException(
          "Cannot trust '"
              + reach.name()
              + "': it shows "
              + KnownKeys.fingerprint(shown)
              + " now, and not "
              + key.fingerprint());
    }
    new KnownKeys(destination.knownHosts()).trust(destination.keptName(), typeOf(shown), shown);
  }

  /** A key begins with the length of its type, and the type (RFC 4253, section 6.6). */
  static String typeOf(byte[] key) {
    int length = ByteBuffer.wrap(key).getInt();
    return new String(
        Arrays.copyOfRange(key, Integer.BYTES, Integer.BYTES + length), StandardCharsets.US_ASCII);
  }

  private record Line(Host host, String told, String address, Wire wire, SshSight sight)
      implements HostLine {
    @Override
    public Socket socket() {
      sight.settle();
      return new SocketThere(wire.connection().session());
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
