package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.Manner;

/** {@code jolly undeploy}. */
public final class UndeployCommand implements Command {
  private final Session session;

  /** In a session. */
  public UndeployCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "undeploy",
            "Take an application away from a server, without a trace.",
            "Data that the application wrote stays and is named.")
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.FROM)
        .takes(Option.DRY_RUN, Option.DIFF, Option.CHANGED_THERE)
        .example("jolly undeploy --from bench", "take away what jolly.toml describes")
        .example("jolly undeploy orders --from shop --dry-run", "only say what would be done");
  }

  @Override
  public int run(Given given) {
    Manner manner = given.manner(false);
    DeliveryView view =
        new DeliveryView(session.screen(), manner.dryRun() || given.has(Option.DIFF));
    return session.end(
        given, session.crate(given, view).undeploy(given.operand(0), given.server(), manner));
  }
}
