package jollycrate.cli.command;

import java.util.List;
import java.util.concurrent.Callable;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.OnServer;
import jollycrate.cli.output.DeliveriesView;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.ServerService;
import jollycrate.journal.DeliveryRecord;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code jolly deliveries}. */
@Command(name = "deliveries", description = "Show the deliveries to a server, the newest last.")
public final class DeliveriesCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;
  @Mixin private OnServer on;

  /** In a session. */
  public DeliveriesCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    session.interrupts().changesNothing();
    ServerService service = session.crate(options).server(on.name());
    List<DeliveryRecord> records = service.deliveries();
    if (options.json()) {
      session.ended(ExitCode.DONE, "deliveries", records);
    } else {
      new DeliveriesView(session.screen()).show(records);
    }
    service.unfinished().ifPresent(session.screen()::note);
    return ExitCode.DONE.code();
  }
}
