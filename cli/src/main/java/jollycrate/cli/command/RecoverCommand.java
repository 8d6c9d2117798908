package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.OnServer;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.ServerService;
import jollycrate.journal.Lock;
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

  @Option(names = "--take-over", description = "End whoever holds the lock first; shows who it is.")
  private boolean takeOver;

  @Option(
      names = "--set-aside",
      description = "Move records that cannot be read aside, once what they told of is in order.")
  private boolean setAside;

  /** In a session. */
  public RecoverCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    DeliveryView view = new DeliveryView(session.screen());
    ServerService service = session.crate(options, view).server(on.name());
    if (takeOver) {
      service.lockHolder().ifPresent(this::tellWhoEnds);
    }
    List<Path> aside = setAside ? service.setAside() : List.of();
    Optional<DeliveryOutcome> outcome = takeOver ? service.takeOver() : service.recover();
    ExitCode code =
        outcome.filter(end -> end.result() == DeliveryOutcome.Result.STUCK).isPresent()
            ? ExitCode.STUCK
            : ExitCode.DONE;
    if (options.json()) {
      return session.ended(code, new Settled(outcome, aside));
    }
    aside.forEach(path -> session.screen().line("Moved aside: " + path));
    if (outcome.isEmpty()) {
      session.screen().line("Nothing to settle: every delivery to " + on.name() + " has ended.");
    } else {
      view.settled(outcome.get());
    }
    return code.code();
  }

  /** What a recovery did. */
  private record Settled(Optional<DeliveryOutcome> settled, List<Path> setAside) {}

  private void tellWhoEnds(Lock.Holder holder) {
    session
        .screen()
        .note(
            "taking over from "
                + holder.by()
                + ", process "
                + holder.process().pid()
                + ", who began at "
                + holder.since());
  }
}
