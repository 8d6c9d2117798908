package jollycrate.cli.command;

import java.util.Optional;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.Manner;

/** {@code jolly rollback}. */
public final class RollbackCommand implements Command {
  private final Session session;

  /** In a session. */
  public RollbackCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "rollback",
            "Deliver an earlier release again, as it was packed and described then.",
            "It is a delivery like any other: proven by the checks of then, or taken back.")
        .takes(
            "NUMBER", "of the delivery it came with; else the release before the one that stands")
        .needs(Option.ON)
        .takes(
            Option.DRY_RUN,
            Option.DIFF,
            Option.CHANGED_THERE,
            Option.HALF_APPLIED,
            Option.ACCEPT,
            Option.JUNIT,
            Option.REPORT)
        .example("jolly rollback --on shop", "back to the release that stood before")
        .example("jolly rollback 12 --on shop", "to the release of delivery 12")
        .example("jolly rollback --on shop --dry-run", "only say what would be done");
  }

  @Override
  public int run(Given given) {
    Optional<Integer> number = given.operand(0).map(RollbackCommand::number);
    Manner manner = given.manner(false);
    DeliveryView view =
        new DeliveryView(session.screen(), manner.dryRun() || given.has(Option.DIFF));
    return session.end(given, session.crate(given, view).rollback(number, given.server(), manner));
  }

  private static int number(String text) {
    if (!text.matches("[1-9]\\d{0,8}")) {
      throw new WrongUsage(
          "'" + text + "' is no number of a delivery; 'jolly deliveries --on NAME' lists them");
    }
    return Integer.parseInt(text);
  }
}
