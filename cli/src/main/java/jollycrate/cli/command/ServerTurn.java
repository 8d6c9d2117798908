package jollycrate.cli.command;

import java.util.Locale;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.FailureView;
import jollycrate.cli.output.Screen;
import jollycrate.delivery.ServerService;

/** {@code jolly server start}, {@code stop} and {@code restart}. */
public final class ServerTurn implements Command {
  private final Session session;
  private final Turn turn;

  /** Which way it goes. */
  public enum Turn {
    START("Start a server and wait until it answers."),
    STOP("Stop a server and wait until it is gone."),
    RESTART("Stop a server that runs, start it and wait until it answers.");

    private final String purpose;

    Turn(String purpose) {
      this.purpose = purpose;
    }

    private String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** In a session. */
  public ServerTurn(Session session, Turn turn) {
    this.session = session;
    this.turn = turn;
  }

  /** What became of a server's process. */
  private record Changed(String server, boolean changed) {}

  @Override
  public Usage usage() {
    return Usage.of("server " + turn.word(), turn.purpose)
        .needs("NAME", "the server, as servers.toml names it")
        .example("jolly server " + turn.word() + " bench", "with everything that stands on it");
  }

  @Override
  public int run(Given given) {
    String name = given.operand(0).orElseThrow();
    ServerService service =
        session.crate(given, new DeliveryView(session.screen(), false)).servers().named(name);
    if (turn == Turn.STOP) {
      boolean stopped = service.stop();
      if (given.json()) {
        return session.done(new Changed(name, stopped));
      }
      told(name, stopped ? "stopped" : "", "does not run");
      return ExitCode.DONE.code();
    }
    boolean stopped = turn == Turn.RESTART && service.stopToRestart();
    ServerService.Started started = service.start();
    ExitCode code = started.failed().isEmpty() ? ExitCode.DONE : ExitCode.CHECKS_FAILED;
    if (given.json()) {
      return session.ended(code, started);
    }
    told(name, stopped ? "restarted" : started.changed() ? "started" : "", "runs already");
    FailureView failures = new FailureView(session.screen());
    started.failed().forEach(cause -> failures.cause("Not up", cause));
    return code.code();
  }

  private void told(String name, String done, String otherwise) {
    Screen screen = session.screen();
    screen.line(
        done.isEmpty()
            ? "Server " + name + " " + otherwise
            : screen.style().good("Server " + name + " " + done));
  }
}
