package jollycrate.cli.output;

import java.time.Duration;
import java.util.List;
import jollycrate.file.Sizes;
import jollycrate.trial.ShapeRow;

/** Shows how an application fared in several shapes. */
public final class ShapesView implements LiveLine {
  private final Screen screen;

  /** On that screen. */
  public ShapesView(Screen screen) {
    this.screen = screen;
  }

  @Override
  public Screen screen() {
    return screen;
  }

  /** One shape is done. */
  public void tried(ShapeRow row) {
    screen.live("tried: " + row.shape());
  }

  /** All of them. */
  public void sheet(List<ShapeRow> rows) {
    Style style = screen.style();
    Table table = new Table("");
    table.row();
    List.of("shape", "runs on", "size", "start", "first answer", "memory", "checks")
        .forEach(heading -> table.cell(heading, style::faint));
    for (ShapeRow row : rows) {
      table.row().cell(row.shape(), style::strong);
      if (!row.cannot().isEmpty()) {
        table.cell("not tried", style::odd);
        continue;
      }
      String checks = row.passed() + " of " + row.checks();
      table
          .cell(row.where())
          .cell(Sizes.told(row.bytes()))
          .cell(seconds(row.start()))
          .cell(Amounts.time(row.first().toMillis()))
          .cell(Sizes.told(row.memory()))
          .cell(checks, row.isGood() ? style::good : style::bad);
    }
    table.lines().forEach(screen::line);
    screen.line(
        style.faint(
            "start: from the process to its being up; memory: resident, of all its processes, with"
                + " a service's keeper"));
    rows.forEach(this::remark);
  }

  private void remark(ShapeRow row) {
    Style style = screen.style();
    if (!row.cannot().isEmpty()) {
      screen.line("");
      screen.line(style.odd(row.shape() + ": ") + row.cannot());
    } else if (!row.isGood() && row.outcome().cause().isPresent()) {
      new FailureView(screen).cause(row.shape(), row.outcome().cause().get());
    }
  }

  private static String seconds(Duration duration) {
    return Amounts.time(duration.toMillis());
  }
}
