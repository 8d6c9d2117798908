package jollycrate.cli.command;

import java.util.Optional;
import jollycrate.Hosts;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.HostsView;
import jollycrate.host.HostKey;

/** {@code jolly host trust}. */
public final class HostTrustCommand implements Command {
  private static final Option FINGERPRINT =
      Option.of("--fingerprint", "SHA256:...", "trust the key if it has this fingerprint");
  private static final Option YES = Option.of("--yes", "trust the key that it shows now");

  private final Session session;

  /** In a session. */
  public HostTrustCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "host trust",
            "Show the key of a machine, and trust it if you say so.",
            "Compare the fingerprint with the one that its administrator gives you, or that"
                + " 'ssh-keygen -lf' prints there. With --yes or --fingerprint a line is added to"
                + " your known_hosts, and no other line changes. A key that differs from a known"
                + " one needs --fingerprint.")
        .needs("NAME", "the machine, as servers.toml names it")
        .takes(FINGERPRINT)
        .takes(YES)
        .example("jolly host trust app1", "show the key of app1, and change nothing")
        .example("jolly host trust app1 --yes", "trust the key that app1 shows")
        .example(
            "jolly host trust app1 --fingerprint SHA256:...",
            "trust this one and no other, as scripts should");
  }

  @Override
  public int run(Given given) {
    String name = given.operand(0).orElseThrow();
    Hosts hosts = session.crate(given).hosts();
    HostKey key = hosts.key(name);
    HostsView view = new HostsView(session.screen());
    if (!given.json()) {
      view.key(name, key);
    }
    ExitCode code = key.trusted() ? ExitCode.DONE : trust(given, hosts, name, key);
    if (given.json()) {
      return session.ended(code, hosts.key(name));
    }
    if (code == ExitCode.DONE) {
      view.trusted(name, key, key.trusted());
    }
    return code.code();
  }

  private ExitCode trust(Given given, Hosts hosts, String name, HostKey key) {
    Optional<String> refused = refused(given, name, key);
    refused.ifPresent(session.screen()::complain);
    if (refused.isPresent()) {
      return ExitCode.BLOCKED;
    }
    hosts.trust(name, key);
    return ExitCode.DONE;
  }

  private static Optional<String> refused(Given given, String name, HostKey key) {
    Optional<String> meant = given.text(FINGERPRINT);
    String exactly = "jolly host trust " + name + " --fingerprint " + key.fingerprint();
    if (key.revoked()) {
      return Optional.of(
          "This key is revoked by " + key.file() + " line " + key.line() + ". Nothing was changed");
    }
    if (meant.isPresent()) {
      return meant
          .filter(other -> !other.equals(key.fingerprint()))
          .map(other -> "That is another key than " + other + ". Nothing was changed");
    }
    if (key.known().isPresent()) {
      return Optional.of(
          "It has another key than before, and nothing was changed. If you know why: " + exactly);
    }
    return given.has(YES)
        ? Optional.empty()
        : Optional.of("Nothing was changed. If this is its key: " + exactly);
  }
}
