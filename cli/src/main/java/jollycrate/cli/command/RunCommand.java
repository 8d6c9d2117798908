package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.RunView;

/** {@code jolly run}. */
public final class RunCommand implements Command {
  private static final Option HTTP =
      Option.number("--http", "PORT", "HTTP port; else the first free from 8080");

  private final Session session;

  /** In a session. */
  public RunCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "run",
            "Run the application from its build output, unpacked, and follow every change of it.",
            "Its checks run after each change. Ctrl-C ends it, and nothing is left.")
        .takes("NAME", "what is run, as [pack.NAME] names it; else what is delivered")
        .takes(HTTP)
        .forPeopleOnly()
        .example("jolly run", "edit, build, look: every change is served");
  }

  @Override
  public int run(Given given) {
    RunView view = new RunView(session.screen());
    session.crate(given, view).run(given.operand(0), given.number(HTTP), view);
    view.over();
    return ExitCode.DONE.code();
  }
}
