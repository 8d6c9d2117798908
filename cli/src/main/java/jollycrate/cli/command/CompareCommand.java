package jollycrate.cli.command;

import java.nio.file.Path;
import jollycrate.Crate;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.Comparison;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.CompareView;
import jollycrate.cli.output.ExitCode;

/** {@code jolly compare}. */
public final class CompareCommand implements Command {
  private final Session session;

  /** In a session. */
  public CompareCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of("compare", "Tell how one archive differs from another.")
        .needs("A", "a WAR or JAR, or maven:GROUP:ARTIFACT:VERSION:TYPE")
        .needs("B", "the one to compare with it")
        .example("jolly compare old.war new.war", "files, classes, libraries, declarations");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    Crate crate = session.crate(given);
    Path before = crate.file(given.operand(0).orElseThrow());
    Path after = crate.file(given.operand(1).orElseThrow());
    Artifact one = crate.inspect(before, given.json());
    Artifact other = crate.inspect(after, given.json());
    Comparison files = crate.compare(before, after);
    CompareView.Document document =
        new CompareView.Document(one, other, files, Crate.identical(before, after));
    if (given.json()) {
      return session.done(document);
    }
    new CompareView(session.screen()).show(document);
    return ExitCode.DONE.code();
  }
}
