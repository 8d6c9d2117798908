package jollycrate.cli.command;

import java.util.Locale;
import jollycrate.Hosts;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.Screen;

/** {@code jolly host start} and {@code stop}. */
public final class HostTurn implements Command {
  private final Session session;
  private final Turn turn;

  /** Which way it goes. */
  public enum Turn {
    START("Start a practice host.", "started", "runs already"),
    STOP("Stop a practice host on which no server runs.", "stopped", "does not run");

    private final String purpose;
    private final String done;
    private final String otherwise;

    Turn(String purpose, String done, String otherwise) {
      this.purpose = purpose;
      this.done = done;
      this.otherwise = otherwise;
    }

    private String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What became of a practice host. */
  private record Changed(String host, boolean changed) {}

  /** In a session. */
  public HostTurn(Session session, Turn turn) {
    this.session = session;
    this.turn = turn;
  }

  @Override
  public Usage usage() {
    return Usage.of("host " + turn.word(), turn.purpose)
        .needs("NAME", "the practice host, as servers.toml names it")
        .example("jolly host " + turn.word() + " app1", "its servers and files stay as they are");
  }

  @Override
  public int run(Given given) {
    String name = given.operand(0).orElseThrow();
    Hosts hosts = session.crate(given).hosts();
    boolean changed = turn == Turn.START ? hosts.start(name) : hosts.stop(name);
    if (given.json()) {
      return session.done(new Changed(name, changed));
    }
    Screen screen = session.screen();
    screen.line(
        changed
            ? screen.style().good("Practice host " + name + " " + turn.done)
            : "Practice host " + name + " " + turn.otherwise);
    return ExitCode.DONE.code();
  }
}
