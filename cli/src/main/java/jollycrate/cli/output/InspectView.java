package jollycrate.cli.output;

import jollycrate.artifact.Artifact;

/** Shows what an archive tells about itself. */
public final class InspectView {
  private final Screen screen;

  /** On that screen. */
  public InspectView(Screen screen) {
    this.screen = screen;
  }

  /** The whole sheet. */
  public void show(Artifact artifact) {
    Style style = screen.style();
    screen.line(style.strong((artifact.name() + " " + artifact.version()).strip()));
    Table table = new Table("  ");
    row(table, "kind", artifact.kind().label());
    row(table, "file", artifact.file().toString());
    row(
        table,
        "size",
        Amounts.size(artifact.size())
            + " in "
            + Amounts.count(artifact.entries(), "entry", "entries"));
    row(table, "digest", "sha256 " + artifact.digest());
    row(table, "java", java(artifact));
    row(table, "servlets", artifact.namespace().label());
    artifact.mainClass().ifPresent(main -> row(table, "main class", main));
    String label = "data source";
    for (Artifact.Declared declared : artifact.dataSources()) {
      row(table, label, declared.name() + style.faint("  declared in " + declared.where()));
      label = "";
    }
    if (!artifact.roles().isEmpty()) {
      row(table, "roles", String.join(", ", artifact.roles()));
    }
    label = "fault";
    for (String fault : artifact.faults()) {
      table.row().cell(label, style::bad).cell(fault);
      label = "";
    }
    table.lines().forEach(screen::line);
  }

  private void row(Table table, String label, String value) {
    table.row().cell(label, screen.style()::faint).cell(value);
  }

  private static String java(Artifact artifact) {
    return artifact.highestLevel() == 0
        ? "no classes inside"
        : "needs "
            + artifact.java()
            + " (class-file version "
            + artifact.highestLevel()
            + ", "
            + artifact.highestClass()
            + ")";
  }
}
