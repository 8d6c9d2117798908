package jollycrate.cli.output;

import java.util.HashSet;
import java.util.Set;
import jollycrate.check.CheckResult;
import jollycrate.server.Cause;

/** Shows checks as they end, and each cause once. */
final class CheckRows {
  private static final String MARGIN = "  ";
  private static final String INDENT = MARGIN + "      ";
  private static final int NAME_WIDTH = 34;

  private final Screen screen;
  private final Style style;
  private final Set<String> told = new HashSet<>();
  private boolean endTellsTheFirst;

  CheckRows(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** The cause of the first failed check is told in full where the act ends. */
  void endTellsTheFirst() {
    endTellsTheFirst = true;
  }

  void show(CheckResult result) {
    String word =
        result.passed()
            ? result.proves() ? style.good("pass") : style.odd("open")
            : style.bad("FAIL");
    String name = String.format("%-" + NAME_WIDTH + "s", result.name());
    String status = result.status() == 0 ? " - " : "" + result.status();
    boolean asked = result.passed() || result.cause().isPresent();
    String took = asked ? Amounts.time(result.took().toMillis()) : "skipped";
    String time = String.format("%8s", took);
    screen.line(
        MARGIN + word + "  " + name + "  " + status + time + "  " + style.faint(result.request()));
    result
        .times()
        .ifPresent(times -> TimesRows.of(times, style).forEach(line -> screen.line(INDENT + line)));
    if (result.status() > 0) {
      result.misses().forEach(this::miss);
    }
    result
        .cause()
        .filter(cause -> told.add(cause.what() + cause.where()))
        .filter(cause -> !endTellsTheFirst || told.size() > 1)
        .ifPresent(this::cause);
  }

  private void miss(CheckResult.Miss miss) {
    screen.line(INDENT + miss.what() + " expected " + miss.expected());
    screen.line(INDENT + " ".repeat(miss.what().length()) + " got      " + style.bad(miss.got()));
  }

  private void cause(Cause cause) {
    screen.line(INDENT + cause.what());
    if (!cause.where().isEmpty() && !cause.where().startsWith("http")) {
      screen.line(INDENT + "at " + style.place(cause.where()));
    }
  }
}
