package jollycrate.cli.command;

import java.util.Locale;
import java.util.Optional;
import jollycrate.Apps;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.DeliveryOutcome;

/** {@code jolly app start}, {@code stop} and {@code restart}. */
public final class AppTurn implements Command {
  /** What becomes of the application. */
  public enum Turn {
    START(
        "Start an application again that was stopped.",
        "Its checks are run, and when they fail it is stopped again."),
    STOP(
        "Stop one application while its server and all else on it go on.",
        "It stays delivered and nothing of it is lost; 'app start' or a deploy starts it."),
    RESTART(
        "Start one application anew while its server and all else on it go on.",
        "Nothing of it changes but a time stamp; its checks are run afterwards.");

    private final String purpose;
    private final String more;

    Turn(String purpose, String more) {
      this.purpose = purpose;
      this.more = more;
    }

    String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private final Session session;
  private final Turn turn;

  /** In a session. */
  public AppTurn(Session session, Turn turn) {
    this.session = session;
    this.turn = turn;
  }

  @Override
  public Usage usage() {
    return Usage.of("app " + turn.word(), turn.purpose, turn.more)
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.ON)
        .example("jolly app " + turn.word() + " --on shop", "the one that jolly.toml describes");
  }

  @Override
  public int run(Given given) {
    Apps apps = session.crate(given, new DeliveryView(session.screen(), false)).apps();
    Optional<String> name = given.operand(0);
    DeliveryOutcome outcome =
        switch (turn) {
          case START -> apps.start(name, given.server());
          case STOP -> apps.stop(name, given.server());
          case RESTART -> apps.restart(name, given.server());
        };
    return session.end(given, outcome);
  }
}
