package jollycrate.cli.output;

import java.util.List;
import jollycrate.site.Examination.Seen;
import jollycrate.site.Examination.Verdict;

/** Shows how a server stands against its description, or a machine against what is needed. */
public final class ExaminationView {
  private final Screen screen;
  private final Style style;

  /** On that screen. */
  public ExaminationView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /**
   * One line for each thing, and below it what to do.
   *
   * @param isRight what is said when nothing is wrong
   */
  public void show(String name, List<Seen> seen, String isRight) {
    rows(seen);
    end(name, seen, isRight);
  }

  private void rows(List<Seen> seen) {
    int width = seen.stream().mapToInt(one -> one.what().length()).max().orElse(0);
    for (Seen one : seen) {
      String what = String.format("%-" + width + "s", one.what());
      screen.line("  " + word(one.verdict()) + "  " + style.faint(what) + "  " + one.value());
      if (!one.fix().isEmpty()) {
        screen.line(" ".repeat(width + 11) + style.faint("fix  ") + one.fix());
      }
    }
    screen.gap();
  }

  private void end(String name, List<Seen> seen, String isRight) {
    long wrong = count(seen, Verdict.WRONG);
    long doubtful = count(seen, Verdict.DOUBTFUL);
    screen.line(
        wrong > 0
            ? style.bad("Wrong:")
                + " "
                + Amounts.count((int) wrong, "thing", "things")
                + " on "
                + name
            : style.good("Right:")
                + " "
                + name
                + " "
                + isRight
                + (doubtful > 0 ? ", with " + Amounts.count((int) doubtful, "doubt", "doubts") : "")
                + ".");
  }

  private static long count(List<Seen> seen, Verdict verdict) {
    return seen.stream().filter(one -> one.verdict() == verdict).count();
  }

  private String word(Verdict verdict) {
    return switch (verdict) {
      case RIGHT -> style.good("ok   ");
      case DOUBTFUL -> style.odd("doubt");
      case WRONG -> style.bad("WRONG");
    };
  }
}
