package jollycrate.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.file.PlainText;

/**
 * One record of a log, with the lines that follow it.
 *
 * @param position of its first character in the text it was read from
 * @param level in the words of whoever wrote it
 * @param source who logged it
 * @param rest lines behind the first one: a stack trace, mostly
 */
public record LogRecord(
    int position, String level, String source, String message, List<String> rest) {
  private static final Pattern THROWN =
      Pattern.compile("((?:[a-zA-Z_$][\\w$]*\\.)+[A-Z][\\w$]*(?:Exception|Error)\\b.*)$");
  private static final Set<String> SEVERE = Set.of("SEVERE", "ERROR");
  private static final Set<String> WARNING = Set.of("WARNING", "WARN");

  /**
   * Those in a text.
   *
   * @param head of a record's first line, with groups {@code level}, {@code source} and {@code
   *     message}
   */
  public static List<LogRecord> in(String log, Pattern head) {
    List<LogRecord> records = new ArrayList<>();
    Matcher line = head.matcher(log);
    boolean found = line.find();
    while (found) {
      int position = line.start();
      int end = line.end();
      String level = line.group("level");
      String source = line.group("source");
      String message = PlainText.of(line.group("message")).strip();
      found = line.find();
      String rest = log.substring(end, found ? line.start() : log.length());
      records.add(
          new LogRecord(
              position,
              level,
              source,
              message,
              PlainText.of(rest).lines().filter(one -> !one.isBlank()).toList()));
    }
    return records;
  }

  /** The same where an exception stands behind the message, on its line, before its trace. */
  public LogRecord traced() {
    Matcher thrown = THROWN.matcher(message);
    return rest.isEmpty() || !thrown.find()
        ? this
        : new LogRecord(
            position,
            level,
            source,
            message,
            Stream.concat(Stream.of(thrown.group(1)), rest.stream()).toList());
  }

  /** Whether it tells of a failure. */
  public boolean isSevere() {
    return SEVERE.contains(level);
  }

  /** Whether it tells of what may be one. */
  public boolean isWarning() {
    return WARNING.contains(level);
  }
}
