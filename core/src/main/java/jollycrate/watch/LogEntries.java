package jollycrate.watch;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.regex.Pattern;

/**
 * Puts lines together to entries: what is indented or carries on a stack trace belongs on, and in a
 * log with stamps whatever has none behind an error or a warning.
 */
final class LogEntries {
  private static final int MOST_LINES = 10_000;
  private static final Pattern CARRIES_ON =
      Pattern.compile("^(\\s+.*|Caused by: .*|Suppressed: .*|)$");

  private final String source;
  private final Consumer<LogEntry> found;
  private final List<String> lines = new ArrayList<>();
  private LogLevel level = LogLevel.NONE;
  private boolean stamped;
  private boolean traced;

  LogEntries(String source, Consumer<LogEntry> found) {
    this.source = source;
    this.found = found;
  }

  void line(String line) {
    LogLevel told = LogLevel.of(line);
    boolean grave = level == LogLevel.ERROR || level == LogLevel.WARNING;
    boolean thrown = grave && isThrown(line) && !traced;
    boolean unstamped = grave && stamped && LogStamp.of(line).isEmpty();
    boolean carriesOn = CARRIES_ON.matcher(line).matches() || thrown || unstamped;
    if (lines.isEmpty() || !carriesOn || lines.size() >= MOST_LINES) {
      flush();
      level = told;
      stamped = LogStamp.of(line).isPresent();
    }
    traced = traced || isThrown(line);
    lines.add(line);
  }

  /** The head of a trace stands at the beginning of a line, behind the record that tells of it. */
  private static boolean isThrown(String line) {
    return line.matches("(?:[\\w$]+\\.){1,60}[A-Z][\\w$]*(?:Exception|Error)(?::.*)?");
  }

  /** What was begun is all there is. */
  void flush() {
    if (!lines.isEmpty()) {
      found.accept(new LogEntry(level, source, List.copyOf(lines)));
    }
    lines.clear();
    traced = false;
  }
}
