package jollycrate.cli.command;

import java.util.Locale;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.HostsView;
import jollycrate.host.StandIn;

/** {@code jolly host open} and {@code close}. */
public final class HostDoor implements Command {
  private static final int LAST_PORT = 65_535;

  private final Session session;
  private final Rule rule;

  /** What becomes of a port. */
  public enum Rule {
    OPEN("Let in what comes for a port of a practice host.", "as its provider's rules would"),
    CLOSE("Let nothing in for a port of a practice host any more.", "what comes gets no answer");

    private final String purpose;
    private final String told;

    Rule(String purpose, String told) {
      this.purpose = purpose;
      this.told = told;
    }

    private String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** In a session. */
  public HostDoor(Session session, Rule rule) {
    this.session = session;
    this.rule = rule;
  }

  @Override
  public Usage usage() {
    return Usage.of("host " + rule.word(), rule.purpose)
        .needs("NAME", "the practice host, as servers.toml names it")
        .needs("PORT", "a TCP port")
        .example("jolly host " + rule.word() + " app1 8080", rule.told);
  }

  @Override
  public int run(Given given) {
    String name = given.operand(0).orElseThrow();
    StandIn now = session.crate(given).hosts().let(name, port(given), rule == Rule.OPEN);
    if (given.json()) {
      return session.done(now);
    }
    new HostsView(session.screen()).rules(now);
    return ExitCode.DONE.code();
  }

  private static int port(Given given) {
    String told = given.operand(1).orElseThrow();
    int port = told.matches("\\d{1,5}") ? Integer.parseInt(told) : 0;
    if (port < 1 || port > LAST_PORT) {
      throw new WrongUsage("'" + told + "' is no TCP port: write a number from 1 to " + LAST_PORT);
    }
    return port;
  }
}
