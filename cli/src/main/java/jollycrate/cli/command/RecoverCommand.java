package jollycrate.cli.command;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.cli.ExitCode;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.OnServer;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.ServerService;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** {@code jolly recover}. */
@Command(
    name = "recover",
    description = {
      "Settle a delivery that was cut off: taken back before its proof, finished after it.",
      "Every command that changes something does this first; this one does nothing else."
    })
public final class RecoverCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;
  @Mixin private OnServer on;

  @Option(
      names = "--take-over",
      description = "Also when the holder of the lock cannot be proven dead; shows who it is.")
  private boolean takeOver;

  /** In a session. */
  public RecoverCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    DeliveryView view = new DeliveryView(session.screen());
    ServerService service = session.crate(options, view).server(on.name());
    if (takeOver) {
      service
          .lockHolder()
          .ifPresent(
              holder ->
                  session
                      .screen()
                      .note(
                          "taking over from "
                              + holder.by()
                              + ", process "
                              + holder.process().pid()
                              + ", who began at "
                              + holder.since()));
    }
    Optional<DeliveryOutcome> outcome = service.recover(takeOver);
    if (options.json()) {
      session.screen().json(Map.of("settled", outcome));
    } else if (outcome.isEmpty()) {
      session.screen().line("Nothing to settle: every delivery to " + on.name() + " has ended.");
    } else {
      view.settled(outcome.get());
    }
    boolean stuck = outcome.filter(end -> end.result() == DeliveryOutcome.Result.STUCK).isPresent();
    return (stuck ? ExitCode.STUCK : ExitCode.DONE).code();
  }
}
