package jollycrate.cli.output;

import java.util.List;
import java.util.stream.Stream;
import jollycrate.check.CheckResult;
import jollycrate.file.Digests;
import jollycrate.file.Sizes;
import jollycrate.foresee.Finding;
import jollycrate.pack.Packed;
import jollycrate.server.Cause;
import jollycrate.server.Server;
import jollycrate.step.StepList;
import jollycrate.watch.Aim;

/** Shows a delivery while it goes on, and how it ended. */
public final class DeliveryView implements LiveLine {
  private static final String MARGIN = "  ";

  private final Screen screen;
  private final Style style;
  private final boolean diffs;
  private final CheckRows checks;
  private boolean checksBegun;

  /**
   * On that screen.
   *
   * @param diffs whether changes of files are shown in full
   */
  public DeliveryView(Screen screen, boolean diffs) {
    this.screen = screen;
    this.diffs = diffs;
    this.checks = new CheckRows(screen);
    this.style = screen.style();
  }

  private void heading(String text) {
    screen.gap();
    screen.line(style.strong(text));
  }

  @Override
  public Screen screen() {
    return screen;
  }

  @Override
  public void recovering(int delivery, String what) {
    screen.note(
        style.live()
            ? style.odd("delivery " + delivery + ": ") + what
            : "delivery " + delivery + ": " + what);
  }

  @Override
  public void packed(Packed packed) {
    packed.remarks().stream()
        .filter(Packed.Remark::warning)
        .forEach(
            remark -> {
              screen.line(style.odd("packed with a warning: ") + remark.text());
              remark.details().forEach(detail -> screen.line(MARGIN + style.faint(detail)));
            });
    packed.remarks().stream()
        .filter(remark -> !remark.warning() && !remark.details().isEmpty())
        .forEach(remark -> screen.line("packed: " + remark.text()));
  }

  @Override
  public void looked(Aim aim, String path) {
    Aim.Release release = aim.release();
    Aim.Place place = aim.place();
    if (release.application().isEmpty()) {
      screen.line(style.place(aim.act() + " " + place.server()));
      Table itself = new Table(MARGIN);
      server(itself, place);
      itself.lines().forEach(screen::line);
      return;
    }
    boolean deploy = aim.act().equals("deploy") || aim.act().equals("rollback");
    String change =
        deploy && !release.earlier().isEmpty() && !release.earlier().equals(release.version())
            ? release.application() + " " + release.earlier() + " -> " + release.version()
            : release.name();
    screen.line(
        style.place(
            aim.act() + " " + change + preposition(aim.act()) + place.server() + " at " + path));
    Table table = new Table(MARGIN);
    server(table, place);
    if (deploy) {
      table
          .row()
          .cell("artifact", style::faint)
          .cell(
              Sizes.told(release.size())
                  + ", SHA-256 "
                  + Digests.brief(release.digest())
                  + (release.revision().isEmpty()
                      ? ""
                      : ", revision " + Amounts.revision(release.revision())));
    }
    table.lines().forEach(screen::line);
  }

  private void server(Table table, Aim.Place place) {
    table
        .row()
        .cell("server", style::faint)
        .cell(place.kind() + " on Java " + place.java() + ", " + place.folder());
  }

  static String preposition(String act) {
    return switch (act) {
      case "undeploy" -> " from ";
      case "check", "rollback", "restart", "start", "stop" -> " on ";
      default -> " to ";
    };
  }

  @Override
  public void foreseen(List<Finding> findings) {
    new FindingRows(screen).show(findings);
  }

  @Override
  public void planned(Server server, StepList steps, List<String> changes) {
    checks.endTellsTheFirst();
    heading("steps");
    Table table = new Table(MARGIN);
    List<StepText> rows =
        StepText.together(
            server,
            Stream.concat(steps.change().stream(), steps.tidy().stream()).toList(),
            changes);
    for (int i = 0; i < rows.size(); i++) {
      table
          .row()
          .cell(String.format("%2d", i + 1), style::faint)
          .cell(rows.get(i).verb())
          .cell(rows.get(i).object());
    }
    table.lines().forEach(screen::line);
    if (diffs) {
      changes.forEach(this::diff);
    }
  }

  private void diff(String unified) {
    screen.gap();
    unified.lines().forEach(line -> screen.line(diffLine(line)));
  }

  private String diffLine(String line) {
    String shown = MARGIN + line;
    if (line.startsWith("+++ ") || line.startsWith("--- ") || line.startsWith("@@")) {
      return style.faint(shown);
    }
    if (line.startsWith("+")) {
      return style.good(shown);
    }
    return line.startsWith("-") ? style.gone(shown) : shown;
  }

  @Override
  public void checked(CheckResult result) {
    if (result.cell().isPresent()) {
      return;
    }
    if (!checksBegun) {
      heading("checks");
      checksBegun = true;
    }
    checks.show(result);
  }

  @Override
  public void takingBack(Cause cause) {
    checksBegun = false;
    screen.live("taking back ...");
  }
}
