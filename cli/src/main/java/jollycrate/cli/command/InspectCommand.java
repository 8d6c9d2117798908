package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import jollycrate.artifact.Artifact;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.InspectView;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code jolly inspect}. */
@Command(name = "inspect", description = "Tell what an archive is and what it needs.")
public final class InspectCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;

  @Option(names = "--digest", description = "Tell the SHA-256 digest too; --json always does.")
  private boolean digest;

  @Parameters(paramLabel = "FILE", description = "A WAR or JAR.")
  private Path file;

  /** In a session. */
  public InspectCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    session.interrupts().changesNothing();
    Artifact artifact =
        session
            .crate(options)
            .inspect(
                session.setting().folder().resolve(file).normalize(), digest || options.json());
    if (options.json()) {
      return session.done(artifact);
    }
    new InspectView(session.screen(), session.setting().folder()).show(artifact);
    return ExitCode.DONE.code();
  }
}
