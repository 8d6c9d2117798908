package jollycrate.cli.command;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.util.List;
import jollycrate.Crate;
import jollycrate.artifact.Artifact;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.InspectView;

/** {@code jolly inspect}. */
public final class InspectCommand implements Command {
  private static final Option DIGEST =
      Option.of("--digest", "tell the SHA-256 digest too; --json always does");

  private final Session session;

  /** In a session. */
  public InspectCommand(Session session) {
    this.session = session;
  }

  /**
   * What is told.
   *
   * @param goesTo lines of servers that it can be delivered to
   */
  private record Inspected(@JsonUnwrapped Artifact artifact, List<String> goesTo) {}

  @Override
  public Usage usage() {
    return Usage.of("inspect", "Tell what an archive is and what it needs.")
        .needs("FILE", "a WAR, JAR or EAR, or maven:GROUP:ARTIFACT:VERSION:TYPE")
        .takes(DIGEST)
        .example("jolly inspect target/spokes.war", "kind, Java, servlet API, paths, data sources");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    Crate crate = session.crate(given);
    Artifact artifact =
        crate.inspect(
            crate.file(given.operand(0).orElseThrow()), given.has(DIGEST) || given.json());
    List<String> goesTo = crate.goesTo(artifact);
    if (given.json()) {
      return session.done(new Inspected(artifact, goesTo));
    }
    new InspectView(session.screen(), session.setting().folder()).show(artifact, goesTo);
    return ExitCode.DONE.code();
  }
}
