package jollycrate.control;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Pattern;
import jollycrate.foresee.Finding;
import jollycrate.host.Account;
import jollycrate.host.Fact;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.server.Running;
import jollycrate.server.Server;

/**
 * What would be otherwise about a process that somebody else started, once jolly starts it again:
 * where it works, as whom, on which Java and with which options and variables.
 *
 * @param launch how jolly starts it
 * @param running the process as it is
 */
public record StartedOtherwise(Host host, Server server, Launch launch, Running running) {
  private static final int MOST_BYTES = 1 << 20;

  /** Variables of a log-in, a shell or a service manager, which no server is told anything by. */
  private static final Pattern OF_A_SESSION =
      Pattern.compile(
          "_|PATH|HOME|USER|LOGNAME|SHELL|SHLVL|PWD|OLDPWD|TERM|TZ|TMPDIR|LANG|LANGUAGE|LC_.*|LS_COLORS"
              + "|MAIL|DISPLAY|HOSTNAME|SSH_.*|XDG_.*|DBUS_.*|SUDO_.*|DEBIAN_FRONTEND|PAGER|LESS.*"
              + "|EDITOR|VISUAL|COLORTERM|INVOCATION_ID|JOURNAL_STREAM|SYSTEMD_.*|NOTIFY_SOCKET|PS1");

  /** Options by which people say how much memory there is, and what is told to applications. */
  private static final Pattern OPTION = Pattern.compile("-(?:X|D|-add|javaagent|agent|ea|da).*");

  /** Each difference; nothing where a restart changes none that can be seen. */
  public List<Finding> findings() {
    List<Finding> findings = new ArrayList<>();
    workingFolder(findings);
    user(findings);
    boolean byUs = !server.steering().hasItsOwn();
    if (byUs) {
      java(findings);
      options(findings);
    }
    variables(findings);
    return List.copyOf(findings);
  }

  private String process() {
    return "process " + running.identity().pid();
  }

  private Path proc(String name) {
    return Path.of("/proc", "" + running.identity().pid(), name);
  }

  private Finding blocker(String what, String fix) {
    return Finding.blocker(server.name(), what, process() + ", which jolly did not start", fix);
  }

  private void workingFolder(List<Finding> findings) {
    Fact<Path> works = host.processes().workingFolder(running.identity());
    Path ours = host.files().real(launch.workingFolder());
    String after =
        "'jolly server stop "
            + server.name()
            + "' and 'start' do it all the same; see before that no relative path is lost";
    if (works.unread().isPresent()) {
      findings.add(
          blocker("where its process works cannot be told: " + works.unread().get(), after));
    } else if (!works.map(ours::equals).orElse(false)) {
      findings.add(
          blocker(
              "it works in "
                  + works.map(Path::toString).orElse("")
                  + ", and after a restart in "
                  + ours
                  + ": relative paths, as of a database file, would lead elsewhere",
              "Name such files by their whole path, then: " + after));
    }
  }

  private void user(List<Finding> findings) {
    Optional<String> now = ownerOf(running.identity());
    Optional<String> then =
        host.processes()
            .accountIn(launch.owned())
            .map(Account::name)
            .or(() -> ownerOf(host.processes().self()));
    if (now.isEmpty() || then.isEmpty()) {
      findings.add(blocker("as whom it runs cannot be told", "Do this again"));
    } else if (!now.equals(then)) {
      findings.add(
          blocker(
              "it runs as " + now.get() + ", and after a restart as " + then.get(),
              "Run this as " + now.get() + ", or let it start by its unit"));
    }
  }

  private Optional<String> ownerOf(Identity process) {
    Facts facts = host.files().facts(Path.of("/proc", "" + process.pid()));
    return facts.exists() ? Optional.of(facts.access().owner()) : Optional.empty();
  }

  private void java(List<Finding> findings) {
    HostFiles files = host.files();
    Path exe = proc("exe");
    Path now = files.real(exe);
    Path then = files.real(server.runtime().javaProgram());
    if (now.equals(exe)) {
      findings.add(
          blocker("on which Java it runs cannot be told", "Run as the user who started it"));
    } else if (!now.equals(then)) {
      findings.add(
          blocker(
              "it runs on " + now + ", and after a restart on " + then,
              "Write java = \"" + now.getParent().getParent() + "\" into servers.toml"));
    }
  }

  private void options(List<Finding> findings) {
    List<String> lost =
        running.command().stream()
            .skip(1)
            .filter(option -> OPTION.matcher(option).matches())
            .filter(option -> !launch.command().contains(option))
            .map(option -> option.replaceFirst("(?i)(=).*", "$1..."))
            .distinct()
            .toList();
    if (!lost.isEmpty()) {
      findings.add(
          Finding.warn(
              server.name(),
              "after a restart it runs without these options of its own: " + String.join(" ", lost),
              process(),
              "Write 'memory' and 'java-options' into servers.toml"));
    }
  }

  /** Names alone: what they hold may be a secret. */
  private void variables(List<Finding> findings) {
    Optional<Map<String, String>> seen = environment();
    if (seen.isEmpty()) {
      findings.add(
          Finding.warn(
              server.name(),
              "which variables it sees cannot be told",
              process(),
              "Run as the user who started it, to be told what a restart would change"));
      return;
    }
    TreeSet<String> lost = new TreeSet<>();
    seen.get()
        .forEach(
            (name, value) -> {
              if (!OF_A_SESSION.matcher(name).matches()
                  && !value.equals(launch.environment().get(name))) {
                lost.add(name);
              }
            });
    if (!lost.isEmpty()) {
      findings.add(
          Finding.warn(
              server.name(),
              "after a restart it does not see these variables as it does now: "
                  + String.join(", ", lost),
              process(),
              "Write those that it needs into [server." + server.name() + ".variables]"));
    }
  }

  /** Empty when it may not be read. */
  private Optional<Map<String, String>> environment() {
    Map<String, String> variables = new HashMap<>();
    try {
      byte[] told = host.files().read(proc("environ"), 0, MOST_BYTES);
      Arrays.stream(new String(told, StandardCharsets.UTF_8).split("\0"))
          .filter(one -> one.contains("="))
          .forEach(
              one ->
                  variables.put(
                      one.substring(0, one.indexOf('=')), one.substring(one.indexOf('=') + 1)));
    } catch (HostException unread) {
      return Optional.empty();
    }
    return Optional.of(variables);
  }
}
