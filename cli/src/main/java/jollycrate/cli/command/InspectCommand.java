package jollycrate.cli.command;

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

  @Override
  public Usage usage() {
    return Usage.of("inspect", "Tell what an archive is and what it needs.")
        .needs("FILE", "a WAR, JAR or EAR")
        .takes(DIGEST)
        .example("jolly inspect target/spokes.war", "kind, Java, servlet API, paths, data sources");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    Artifact artifact =
        session
            .crate(given)
            .inspect(
                session.file(given.operand(0).orElseThrow()), given.has(DIGEST) || given.json());
    if (given.json()) {
      return session.done(artifact);
    }
    new InspectView(session.screen(), session.setting().folder()).show(artifact);
    return ExitCode.DONE.code();
  }
}
