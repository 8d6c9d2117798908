package jollycrate.cli.output;

import java.util.function.UnaryOperator;
import jollycrate.watch.LogEntry;
import jollycrate.watch.LogLevel;

/** Shows a log as it comes, each entry in the colour of its level. */
public final class LogView {
  private final Screen screen;

  /** On that screen. */
  public LogView(Screen screen) {
    this.screen = screen;
  }

  /** One entry, with the lines that belong to it. */
  public void show(LogEntry entry) {
    Style style = screen.style();
    UnaryOperator<String> colour = colour(style, entry.level());
    String source = entry.source().isEmpty() ? "" : style.place(entry.source()) + "  ";
    for (int i = 0; i < entry.lines().size(); i++) {
      String line = entry.lines().get(i);
      boolean frame = i > 0 && line.strip().startsWith("at ");
      screen.line(source + (frame ? style.faint(line) : colour.apply(line)));
    }
  }

  private static UnaryOperator<String> colour(Style style, LogLevel level) {
    return switch (level) {
      case ERROR -> style::gone;
      case WARNING -> style::odd;
      case DETAIL -> style::faint;
      case INFO, NONE -> line -> line;
    };
  }
}
