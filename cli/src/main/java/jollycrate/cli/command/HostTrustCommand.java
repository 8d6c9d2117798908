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
      Option.of("--fingerprint", "SHA256:...", "trust this very key, as somebody told it to you");

  private final Session session;

  /** In a session. */
  public HostTrustCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "host trust",
            "Show the key of a machine, and trust it from now on.",
            "Compare the fingerprint with what its administrator tells you, or what"
                + " 'ssh-keygen -lf' prints there. It is written to your known_hosts; a key that"
                + " has changed is trusted with --fingerprint only.")
        .needs("NAME", "the machine, as servers.toml names it")
        .takes(FINGERPRINT)
        .example("jolly host trust app1", "trust the key that app1 shows, and show it")
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
    Optional<String> meant = given.text(FINGERPRINT);
    if (meant.isPresent() && !meant.get().equals(key.fingerprint())) {
      session
          .screen()
          .complain("That is another key than " + meant.get() + ". Nothing was changed");
      return ExitCode.BLOCKED;
    }
    if (meant.isEmpty() && key.known().isPresent()) {
      session
          .screen()
          .complain(
              "It has another key than before, and nothing was changed. If you know why: jolly"
                  + " host trust "
                  + name
                  + " --fingerprint "
                  + key.fingerprint());
      return ExitCode.BLOCKED;
    }
    hosts.trust(name, key);
    return ExitCode.DONE;
  }
}
