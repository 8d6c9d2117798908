package jollycrate.cli.command;

import java.util.List;
import java.util.Optional;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveriesView;
import jollycrate.cli.output.DeliveryTimesView;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.PastDeliveries;
import jollycrate.delivery.ServerService;
import jollycrate.journal.DeliveryRecord;

/** {@code jolly deliveries}. */
public final class DeliveriesCommand implements Command {
  private static final Option TIMES =
      Option.of("--times", "how start, first answer and memory moved from release to release");

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
        .takes(TIMES)
        .example("jolly deliveries --on shop", "which release, when, by whom, how it ended")
        .example(
            "jolly deliveries 12 --on shop", "one of them with its steps, diffs, checks and cause");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    ServerService service = session.crate(given).servers().named(given.server());
    if (given.has(TIMES)) {
      return times(given, service);
    }
    List<DeliveryRecord> records = service.past().all();
    DeliveriesView view = new DeliveriesView(session.screen());
    if (given.operand(0).isPresent()) {
      DeliveryRecord one = service.past().one(given.operand(0));
      Optional<DeliveryOutcome> told = service.past().told(one.delivery());
      if (given.json()) {
        return session.done(new Whole(one, told));
      }
      view.show(one);
      told.ifPresent(outcome -> view.again(service.server(), outcome));
    } else if (given.json()) {
      session.done(new All(records, service.past().standing(), service.past().kept()));
    } else {
      view.show(records, service.past().standing(), service.past().kept());
    }
    service.unfinished().ifPresent(session.screen()::note);
    return ExitCode.DONE.code();
  }

  private int times(Given given, ServerService service) {
    List<PastDeliveries.Times> times = service.past().times();
    if (given.json()) {
      return session.ended(ExitCode.DONE, "times", times);
    }
    new DeliveryTimesView(session.screen()).show(times);
    return ExitCode.DONE.code();
  }

  /** The document of one delivery. */
  private record Whole(DeliveryRecord record, Optional<DeliveryOutcome> told) {}

  /** The document of all of them. */
  private record All(List<DeliveryRecord> deliveries, List<Integer> standing, List<Integer> kept) {}
}
