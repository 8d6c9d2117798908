package jollycrate.cli.command;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.WatchView;
import jollycrate.delivery.Rounds;

/** {@code jolly watch}. */
public final class WatchCommand implements Command {
  private static final Option EVERY =
      Option.of("--every", "TIME", "time between two rounds; else 5s");
  private static final Option UNTIL_READY =
      Option.of("--until-ready", "end as soon as everything passes, for scripts");
  private static final Option WITHIN =
      Option.of("--within", "TIME", "with --until-ready: how long it may take; else 2m");

  private static final Duration USUALLY = Duration.ofSeconds(5);
  private static final Duration WHEN_WAITING = Duration.ofSeconds(1);
  private static final Duration LONGEST_WAIT = Duration.ofMinutes(2);

  private final Session session;

  /** In a session. */
  public WatchCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "watch",
            "Make the checks of an application again and again, until Ctrl-C.",
            "Only those that change nothing. The exit code tells whether the last round passed.")
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.ON)
        .takes(EVERY, UNTIL_READY, WITHIN)
        .forPeopleOnly()
        .example("jolly watch --on shop", "look on while something is going on there")
        .example("jolly watch --on shop --until-ready --within 90s", "wait in a script");
  }

  @Override
  public int run(Given given) {
    boolean waiting = given.has(UNTIL_READY);
    if (given.has(WITHIN) && !waiting) {
      throw new WrongUsage("--within goes with --until-ready");
    }
    Duration every = given.time(EVERY).orElse(waiting ? WHEN_WAITING : USUALLY);
    Optional<Instant> end =
        waiting
            ? Optional.of(Instant.now().plus(given.time(WITHIN).orElse(LONGEST_WAIT)))
            : Optional.empty();
    WatchView view = new WatchView(session.screen(), given.server());
    session
        .crate(given)
        .apps()
        .watch(given.operand(0), given.server(), every, round -> goesOn(round, view, end));
    return (view.passed() ? ExitCode.DONE : ExitCode.CHECKS_FAILED).code();
  }

  private static boolean goesOn(Rounds.Round round, WatchView view, Optional<Instant> end) {
    view.show(round);
    return end.map(until -> !round.passed() && Instant.now().isBefore(until)).orElse(true);
  }
}
