package jollycrate.cli.command;

import java.util.List;
import jollycrate.app.NotDescribedException;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveriesView;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.ServerService;
import jollycrate.journal.DeliveryRecord;

/** {@code jolly deliveries}. */
public final class DeliveriesCommand implements Command {
  private final Session session;

  /** In a session. */
  public DeliveriesCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "deliveries",
            "Show the deliveries to a server, the newest last.",
            "The records stand on the server, so everybody sees the same.")
        .takes("NUMBER", "one delivery, told whole")
        .needs(Option.ON)
        .example("jolly deliveries --on shop", "which release, when, by whom, how it ended")
        .example("jolly deliveries 12 --on shop", "one of them with its digests and its cause");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    ServerService service = session.crate(given).server(given.server());
    List<DeliveryRecord> records = service.deliveries();
    DeliveriesView view = new DeliveriesView(session.screen());
    if (given.operand(0).isPresent()) {
      DeliveryRecord one = one(records, given.operand(0).get(), given.server());
      if (given.json()) {
        return session.done(one);
      }
      view.show(one);
    } else if (given.json()) {
      session.ended(ExitCode.DONE, "deliveries", records);
    } else {
      view.show(records);
    }
    service.unfinished().ifPresent(session.screen()::note);
    return ExitCode.DONE.code();
  }

  private static DeliveryRecord one(List<DeliveryRecord> records, String number, String server) {
    return records.stream()
        .filter(record -> number.equals("" + record.delivery()))
        .findFirst()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot show delivery '"
                        + number
                        + "': there is none of that number. 'jolly deliveries --on "
                        + server
                        + "' lists them"));
  }
}
