package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import jollycrate.Crate;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.Comparison;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.CompareView;
import jollycrate.cli.output.ExitCode;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** {@code jolly compare}. */
@Command(name = "compare", description = "Tell how one archive differs from another.")
public final class CompareCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;

  @Parameters(index = "0", paramLabel = "A", description = "A WAR or JAR.")
  private Path before;

  @Parameters(index = "1", paramLabel = "B", description = "The one to compare with it.")
  private Path after;

  /** In a session. */
  public CompareCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    session.interrupts().changesNothing();
    Crate crate = session.crate(options);
    Artifact one = crate.inspect(resolved(before), options.json());
    Artifact other = crate.inspect(resolved(after), options.json());
    Comparison files = crate.compare(resolved(before), resolved(after));
    CompareView.Document document =
        new CompareView.Document(
            one, other, files, Crate.identical(resolved(before), resolved(after)));
    if (options.json()) {
      return session.done(document);
    }
    new CompareView(session.screen()).show(document);
    return ExitCode.DONE.code();
  }

  private Path resolved(Path file) {
    return session.setting().folder().resolve(file).normalize();
  }
}
