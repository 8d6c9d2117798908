package jollycrate.cli.command;

import java.util.List;
import jollycrate.Apps;
import jollycrate.check.SideBySide;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.SideBySideView;

/** {@code jolly check}. */
public final class CheckCommand implements Command {
  private static final Option AT_ONCE =
      Option.number("--at-once", "COUNT", "how many checks are made at the same time; else one");
  private static final int MOST_AT_ONCE = 64;

  private final Session session;

  /** In a session. */
  public CheckCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of("check", "Run the checks of an application against what stands on a server.")
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.ON_EACH)
        .takes(AT_ONCE)
        .takes(Option.JUNIT, Option.REPORT)
        .example("jolly check --on shop", "run the checks that jolly.toml describes")
        .example("jolly check orders --on shop", "ask an application that nothing describes")
        .example("jolly check --on bench --on shop", "the same on two servers, side by side");
  }

  @Override
  public int run(Given given) {
    List<String> servers = given.servers();
    if (servers.size() > 1) {
      return sideBySide(given, servers);
    }
    DeliveryView view = new DeliveryView(session.screen(), false);
    int atOnce = given.number(AT_ONCE).orElse(1);
    if (atOnce < 1 || atOnce > MOST_AT_ONCE) {
      throw new WrongUsage("--at-once is " + atOnce + ": give 1 to " + MOST_AT_ONCE);
    }
    Apps apps = session.crate(given, view).apps();
    return session.end(given, apps.check(given.operand(0), servers.get(0), atOnce));
  }

  private int sideBySide(Given given, List<String> servers) {
    boolean more = given.has(AT_ONCE) || given.has(Option.JUNIT) || given.has(Option.REPORT);
    if (servers.size() > 2 || more) {
      throw new WrongUsage(
          "Side by side are two servers, and --at-once, --junit and --report are for one");
    }
    SideBySide both = session.crate(given).apps().compare(given.operand(0), servers);
    ExitCode code = both.right() ? ExitCode.DONE : ExitCode.CHECKS_FAILED;
    if (given.json()) {
      return session.ended(code, both);
    }
    new SideBySideView(session.screen()).show(both);
    return code.code();
  }
}
