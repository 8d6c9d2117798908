package jollycrate.cli.output;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import jollycrate.check.CheckResult;
import jollycrate.check.SideBySide;

/** Shows the same checks of two servers in one table, and below it what differs. */
public final class SideBySideView {
  private static final int MOST_LINES = 12;

  private final Screen screen;
  private final Style style;
  private final Set<List<String>> told = new HashSet<>();

  /** On that screen. */
  public SideBySideView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** All of it. */
  public void show(SideBySide both) {
    SideBySide.Place one = both.places().get(0);
    SideBySide.Place other = both.places().get(1);
    Table table = new Table("  ");
    table.row().cell("").cell("");
    both.places()
        .forEach(place -> table.cell(place.release() + " on " + place.server(), style::strong));
    for (SideBySide.Pair pair : both.pairs()) {
      table
          .row()
          .cell(pair.same() ? "same  " : "DIFFER", pair.same() ? style::good : style::bad)
          .cell(pair.one().name());
      result(table, pair.one());
      result(table, pair.other());
    }
    table.lines().forEach(screen::line);
    both.pairs().stream().filter(pair -> !pair.same()).forEach(pair -> differ(pair, one, other));
    long same = both.pairs().stream().filter(SideBySide.Pair::same).count();
    screen.gap();
    String count = same + " of " + Amounts.count(both.pairs().size(), "check", "checks");
    screen.line(
        both.right()
            ? style.good("Same:") + " " + count + " came alike from both, and pass."
            : style.bad("Not the same, or not right:") + " " + count + " came alike from both.");
  }

  private void result(Table table, CheckResult result) {
    String status = result.status() == 0 ? "none" : "" + result.status();
    table.cell(
        (result.passed() ? "pass" : "FAIL")
            + "  "
            + status
            + String.format("%8s", Amounts.time(result.took().toMillis())),
        result.passed() ? style::good : style::bad);
  }

  private void differ(SideBySide.Pair pair, SideBySide.Place one, SideBySide.Place other) {
    screen.gap();
    screen.line(
        "  "
            + style.strong(pair.one().name())
            + style.faint("  - " + one.server() + "  + " + other.server()));
    List<String> lines = pair.differences();
    if (!told.add(lines)) {
      screen.line(style.faint("    the same lines as above"));
      return;
    }
    lines.stream().limit(MOST_LINES).map(this::coloured).forEach(screen::line);
    if (lines.size() > MOST_LINES) {
      screen.line(style.faint("    and " + (lines.size() - MOST_LINES) + " more lines"));
    }
  }

  private String coloured(String line) {
    String shown = style.cut("    " + line);
    if (line.startsWith("+")) {
      return style.good(shown);
    }
    return line.startsWith("-") ? style.gone(shown) : shown;
  }
}
