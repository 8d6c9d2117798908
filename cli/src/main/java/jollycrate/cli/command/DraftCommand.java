package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DraftView;
import jollycrate.cli.output.ExitCode;
import jollycrate.draft.Draft;

/** {@code jolly draft}. */
public final class DraftCommand implements Command {
  private final Session session;

  /** In a session. */
  public DraftCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "draft",
            "Write a first jolly.toml from the project in this folder.",
            "Each value says where it was found; what you must still tell is marked. A jolly.toml"
                + " that stands here is never changed: then it is told what is missing in it.")
        .example("jolly draft", "in the folder of a Maven project, a front end or an archive");
  }

  @Override
  public int run(Given given) {
    Draft draft = session.crate(given).draft();
    if (given.json()) {
      return session.done(draft);
    }
    new DraftView(session.screen()).show(draft);
    return ExitCode.DONE.code();
  }
}
