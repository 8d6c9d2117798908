package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.Drafts;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DraftView;
import jollycrate.cli.output.ExitCode;
import jollycrate.draft.CheckDraft;
import jollycrate.draft.Draft;

/** {@code jolly draft}. */
public final class DraftCommand implements Command {
  private static final Option CHECKS =
      Option.of("--checks", "add checks to jolly.toml: from the artifact, and what else is told");
  private static final Option OPENAPI =
      Option.of("--openapi", "FILE", "with --checks: from a description of its interface, too");
  private static final Option HAR =
      Option.of("--har", "FILE", "with --checks: from what a browser asked for, too");
  private static final Option TRIED =
      Option.of("--tried-on", "NAME", "with --checks: only what passes on this server now");

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
                + " that stands here is never changed, but for '--checks', which adds checks at its"
                + " end: then it is told what is missing in it.")
        .takes(CHECKS, OPENAPI, HAR, TRIED)
        .example("jolly draft", "in the folder of a Maven project, a front end or an archive")
        .example(
            "jolly draft --checks --openapi api.yaml --tried-on bench",
            "a check for each path that is known, if it passes there");
  }

  @Override
  public int run(Given given) {
    Drafts drafts = session.crate(given).drafts();
    if (given.has(CHECKS)) {
      return checks(given, drafts);
    }
    if (given.has(OPENAPI) || given.has(HAR) || given.has(TRIED)) {
      throw new WrongUsage("--openapi, --har and --tried-on go with --checks");
    }
    Draft draft = drafts.project();
    if (given.json()) {
      return session.done(draft);
    }
    new DraftView(session.screen()).show(draft);
    return ExitCode.DONE.code();
  }

  private int checks(Given given, Drafts drafts) {
    Optional<Path> openApi = given.text(OPENAPI).map(session::file);
    Optional<Path> har = given.text(HAR).map(session::file);
    CheckDraft.Added added = drafts.checks(openApi, har, given.text(TRIED));
    if (given.json()) {
      return session.done(added);
    }
    new DraftView(session.screen()).show(added);
    return ExitCode.DONE.code();
  }
}
