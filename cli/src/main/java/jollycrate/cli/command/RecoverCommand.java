package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.EndView;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.ServerService;
import jollycrate.journal.Lock;

/** {@code jolly recover}. */
public final class RecoverCommand implements Command {
  private static final Option TAKE_OVER =
      Option.of("--take-over", "end whoever holds the lock first; shows who it is");
  private static final Option SET_ASIDE =
      Option.of(
          "--set-aside",
          "move records that cannot be read aside, once what they told of is in order");

  private final Session session;

  /** In a session. */
  public RecoverCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "recover",
            "Settle a delivery that was cut off: taken back before its proof, finished after it.",
            "Every command that changes something does this first; this one does nothing else.")
        .needs(Option.ON)
        .takes(TAKE_OVER, SET_ASIDE)
        .example("jolly recover --on shop", "after a crash, or once what was named is in order");
  }

  @Override
  public int run(Given given) {
    DeliveryView view = new DeliveryView(session.screen(), false);
    ServerService service = session.crate(given, view).servers().named(given.server());
    boolean takeOver = given.has(TAKE_OVER);
    if (takeOver) {
      service.lockHolder().ifPresent(this::tellWhoEnds);
    }
    List<Path> aside = given.has(SET_ASIDE) ? service.setAside() : List.of();
    Optional<DeliveryOutcome> outcome = takeOver ? service.takeOver() : service.recover();
    ExitCode code =
        outcome.filter(end -> end.result() == DeliveryOutcome.Result.STUCK).isPresent()
            ? ExitCode.STUCK
            : ExitCode.DONE;
    if (given.json()) {
      return session.ended(code, new Settled(outcome, aside));
    }
    aside.forEach(path -> session.screen().line("Moved aside: " + path));
    if (outcome.isEmpty()) {
      session
          .screen()
          .line("Nothing to settle: every delivery to " + given.server() + " has ended.");
    } else {
      new EndView(session.screen()).settled(outcome.get());
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
