package jollycrate.cli.output;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;

/** Who may see what, as it was found: a row for each path, a column for each user. */
final class AccessTable {
  private static final String MARGIN = "  ";

  private final Screen screen;
  private final Style style;

  AccessTable(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  void show(List<CheckResult> results) {
    List<CheckResult> cells = results.stream().filter(result -> result.cell().isPresent()).toList();
    if (cells.isEmpty()) {
      return;
    }
    screen.gap();
    screen.line(style.strong("who may see what"));
    List<String> people = new ArrayList<>();
    List<String> paths = new ArrayList<>();
    cells.stream().map(CheckResult::cell).forEach(cell -> note(cell.orElseThrow(), people, paths));
    Table table = new Table(MARGIN);
    table.row().cell("");
    people.forEach(who -> table.cell(who, style::strong));
    for (String path : paths) {
      table.row().cell(path, style::place);
      people.forEach(who -> cell(table, found(cells, path, who)));
    }
    table.lines().forEach(screen::line);
  }

  private static void note(Check.Cell cell, List<String> people, List<String> paths) {
    if (!people.contains(cell.who())) {
      people.add(cell.who());
    }
    if (!paths.contains(cell.path())) {
      paths.add(cell.path());
    }
  }

  private static Optional<CheckResult> found(List<CheckResult> cells, String path, String who) {
    return cells.stream()
        .filter(one -> one.cell().orElseThrow().path().equals(path))
        .filter(one -> one.cell().orElseThrow().who().equals(who))
        .findFirst();
  }

  private void cell(Table row, Optional<CheckResult> found) {
    if (found.isEmpty()) {
      row.cell("");
      return;
    }
    CheckResult result = found.get();
    boolean allowed = result.cell().orElseThrow().allowed();
    String right = (allowed ? "sees it, " : "kept out, ") + result.status();
    String wrong =
        "WRONG: "
            + (result.status() == 0 ? "no answer" : "" + result.status())
            + (allowed ? ", is to see it" : ", is to be kept out");
    UnaryOperator<String> look = result.passed() ? style::good : style::bad;
    row.cell(result.passed() ? right : wrong, look);
  }
}
