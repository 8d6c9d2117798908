package jollycrate.cli.output;

import java.util.List;
import java.util.Optional;
import jollycrate.check.CheckResult;

/** Shows who may see what. */
final class AccessTable {
  private static final String MARGIN = "  ";

  private final Screen screen;
  private final Style style;

  AccessTable(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  void show(List<CheckResult> results) {
    AccessMatrix matrix = AccessMatrix.of(results);
    if (matrix.isEmpty()) {
      return;
    }
    screen.gap();
    screen.line(style.strong("who may see what"));
    Table table = new Table(MARGIN);
    table.row().cell("");
    matrix.people().forEach(who -> table.cell(who, style::strong));
    for (String path : matrix.paths()) {
      table.row().cell(path, style::place);
      matrix.people().forEach(who -> cell(table, matrix.at(path, who)));
    }
    table.lines().forEach(screen::line);
  }

  private void cell(Table row, Optional<CheckResult> found) {
    row.cell(
        found.map(AccessMatrix::told).orElse(""),
        found.filter(one -> !one.passed()).isPresent() ? style::bad : style::good);
  }
}
