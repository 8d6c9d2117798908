package jollycrate.cli.command;

import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.cli.options.HelpOption;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.RunView;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code jolly run}. */
@Command(
    name = "run",
    description = {
      "Run the application from its build output, unpacked, and follow every change of it.",
      "Its checks run after each change. Ctrl-C ends it, and nothing is left."
    })
public final class RunCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private HelpOption help;

  @Parameters(
      arity = "0..1",
      paramLabel = "NAME",
      description = "What is run, as [pack.NAME] names it; else what is delivered.")
  private String pack;

  @Option(
      names = "--http",
      paramLabel = "PORT",
      description = "HTTP port; else the first free from 8080.")
  private Integer http;

  @Option(names = "--debug", description = "Show the stack trace of a fault.")
  private boolean debug;

  /** In a session. */
  public RunCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    session.debugging(debug);
    RunView view = new RunView(session.screen());
    session.crate(view).run(Optional.ofNullable(pack), Optional.ofNullable(http), view);
    view.over();
    return ExitCode.DONE.code();
  }
}
