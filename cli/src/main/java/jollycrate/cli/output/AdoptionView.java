package jollycrate.cli.output;

import java.nio.file.Path;
import jollycrate.app.ContextPath;
import jollycrate.server.Occupant;
import jollycrate.server.SelfDescription;
import jollycrate.site.Adoption;

/** Shows a server that was adopted: what it says of itself, and what stands there. */
public final class AdoptionView {
  private final Screen screen;

  /** On that screen. */
  public AdoptionView(Screen screen) {
    this.screen = screen;
  }

  public void show(Adoption adoption) {
    Style style = screen.style();
    Path folder = adoption.entry().folder();
    screen.line(style.place(adoption.kind() + " in " + adoption.entry().place()));
    Table told = new Table("  ");
    adoption
        .entry()
        .installation()
        .filter(at -> !at.equals(folder))
        .ifPresent(at -> told.row().cell("installed", style::faint).cell(at.toString()));
    for (SelfDescription.Told one : adoption.told()) {
      told.row().cell(one.what(), style::faint).cell(one.value()).cell(one.where(), style::faint);
    }
    told.lines().forEach(screen::line);
    if (!adoption.standing().isEmpty()) {
      screen.gap();
      screen.line(style.strong("standing there"));
      Table standing = new Table("  ");
      for (Occupant occupant : adoption.standing()) {
        String file =
            occupant.path().startsWith(folder)
                ? folder.relativize(occupant.path()).toString()
                : occupant.path().toString();
        standing.row().cell(ContextPath.shown(occupant.contextPath())).cell(file, style::faint);
      }
      standing.lines().forEach(screen::line);
    }
    new FindingRows(screen).show(adoption.findings());
    screen.gap();
    screen.line(
        style.good("Adopted")
            + " as "
            + adoption.entry().name()
            + ", described in servers.toml. Nothing on the server was changed.");
  }
}
