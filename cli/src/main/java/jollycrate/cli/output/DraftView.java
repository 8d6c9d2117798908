package jollycrate.cli.output;

import jollycrate.draft.CheckDraft;
import jollycrate.draft.Draft;

/** Shows what a first description holds and what it lacks. */
public final class DraftView {
  private final Screen screen;

  /** On that screen. */
  public DraftView(Screen screen) {
    this.screen = screen;
  }

  /** Checks that were added, with where each was found. */
  public void show(CheckDraft.Added added) {
    Style style = screen.style();
    int count = added.checks().size();
    screen.line(
        count == 0
            ? "Nothing was found that "
                + added.file()
                + " does not check yet. More paths stand in an OpenAPI description (--openapi) or"
                + " a browser's recording (--har)."
            : style.good("Added ")
                + Amounts.count(count, "check", "checks")
                + " to "
                + style.place(added.file()));
    Table table = new Table("  ");
    for (Draft.Found one : added.checks()) {
      table.row().cell(one.key()).cell(one.value(), style::strong).cell(one.where(), style::faint);
    }
    table.lines().forEach(screen::line);
    if (!added.leftOut().isEmpty()) {
      screen.gap();
      screen.line(style.strong("Left out, as it does not hold now"));
      added.leftOut().forEach(one -> screen.line("  " + one));
    }
  }

  /** With where each value was found. */
  public void show(Draft draft) {
    Style style = screen.style();
    if (draft.written()) {
      screen.line(style.good("Wrote") + " " + style.place(draft.file()));
    } else if (draft.found().isEmpty()) {
      screen.line(draft.file() + " stands, and says all that was found here.");
    } else {
      screen.line(draft.file() + " stands and stays as it is. It does not say:");
    }
    Table table = new Table("  ");
    draft
        .found()
        .forEach(
            one ->
                table
                    .row()
                    .cell(one.key())
                    .cell(one.value(), style::strong)
                    .cell(one.where(), style::faint));
    table.lines().forEach(screen::line);
    if (!draft.untold().isEmpty()) {
      screen.gap();
      screen.line(style.strong("Yours to tell") + ", in the lines that begin with '# tell:'");
      draft.untold().forEach(question -> screen.line("  " + question));
    }
    if (draft.written()) {
      screen.gap();
      boolean program = draft.text().contains("[program]");
      screen.line(
          program
              ? "Then: jolly server new solo --kind service, and jolly deploy --to solo"
              : "Then: jolly server new bench, and jolly deploy --to bench");
    }
  }
}
