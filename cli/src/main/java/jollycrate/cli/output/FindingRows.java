package jollycrate.cli.output;

import java.util.List;
import java.util.Locale;
import jollycrate.foresee.Finding;

/** Shows findings, the level in front, with where each was seen and how to mend it. */
final class FindingRows {
  private static final String MARGIN = "  ";

  private final Screen screen;
  private final Style style;

  FindingRows(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** With a heading; nothing when there are none. */
  void show(List<Finding> findings) {
    if (!findings.isEmpty()) {
      screen.gap();
      screen.line(style.strong("findings"));
      findings.forEach(this::show);
    }
  }

  private void show(Finding finding) {
    String level = String.format("%-8s", finding.level().name().toLowerCase(Locale.ROOT));
    String shown =
        switch (finding.level()) {
          case BLOCKER -> style.bad(level);
          case WARN -> style.odd(level);
          case NOTE -> style.faint(level);
        };
    screen.line(MARGIN + shown + style.strong(finding.subject()) + ": " + finding.message());
    String indent = MARGIN + " ".repeat(level.length());
    if (!finding.seen().isEmpty()) {
      List<String> seen = finding.seen().lines().toList();
      screen.line(indent + style.faint("seen  ") + changed(seen.get(0)));
      seen.stream().skip(1).forEach(line -> screen.line(indent + " ".repeat(6) + changed(line)));
    }
    if (!finding.fix().isEmpty()) {
      screen.line(indent + style.faint("fix   ") + finding.fix());
    }
  }

  /** What was put in or taken out, in the colours of a diff. */
  private String changed(String line) {
    if (line.startsWith("+ ")) {
      return style.good(line);
    }
    return line.startsWith("- ") ? style.gone(line) : line;
  }
}
