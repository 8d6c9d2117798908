package jollycrate.cli.output;

import jollycrate.pack.Packed;

/** Shows what went into an archive. */
public final class PackView {
  private final Screen screen;

  /** On that screen. */
  public PackView(Screen screen) {
    this.screen = screen;
  }

  /** The whole sheet. */
  public void show(Packed packed) {
    Style style = screen.style();
    Table table = new Table("  ");
    for (Packed.Part part : packed.parts()) {
      table
          .row()
          .cell(part.name())
          .cell(Amounts.count(part.files(), "file", "files"))
          .cell(Amounts.size(part.bytes()));
    }
    for (Packed.LeftOut left : packed.leftOut()) {
      table.row().cell("left out", style::odd).cell(left.path()).cell(left.reason(), style::faint);
    }
    table.lines().forEach(screen::line);
    screen.gap();
    String word = packed.changed() ? "Packed" : "Unchanged:";
    screen.line(
        style.good(word)
            + " "
            + style.place(packed.file().toString())
            + ", "
            + Amounts.size(packed.size())
            + " in "
            + Amounts.count(packed.entries(), "entry", "entries"));
    screen.line(style.faint("sha256 " + packed.digest()));
  }
}
