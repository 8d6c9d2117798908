package jollycrate.trace;

import java.util.ArrayList;
import java.util.Comparator;
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
      Pattern.compile("((?:[a-zA-Z_$][\\w$]*\\.){1,60}[A-Z][\\w$]*(?:Exception|Error)\\b.*)$");

  /** As {@code java.util.logging.SimpleFormatter} writes it, unless it is told otherwise. */
  private static final Pattern TWO_LINES =
      Pattern.compile(
          "^\\w{3} \\d{1,2}, \\d{4},? [\\d:]+.[AP]M (?<source>\\S+)[^\\n]*\\n"
              + "(?<level>SEVERE|WARNING|INFO|CONFIG): (?<message>.*)$",
          Pattern.MULTILINE);

  private static final Pattern FOREIGN_LEVEL =
      Pattern.compile("\\b(?:SEVERE|ERROR|FATAL|WARNING|WARN)\\b");
  private static final Set<String> SEVERE = Set.of("SEVERE", "ERROR");
  private static final Set<String> WARNING = Set.of("WARNING", "WARN");

  /**
   * Those in a text.
   *
   * @param head of a record's first line, with groups {@code level}, {@code source} and {@code
   *     message}
   */
  public static List<LogRecord> in(String log, Pattern head) {
    List<MatchedHead> heads = new ArrayList<>();
    for (Pattern form : List.of(head, TWO_LINES)) {
      Matcher line = form.matcher(log);
      while (line.find()) {
        heads.add(MatchedHead.of(line));
      }
    }
    heads.sort(Comparator.comparingInt(MatchedHead::start));
    List<LogRecord> records = new ArrayList<>();
    for (int i = 0; i < heads.size(); i++) {
      MatchedHead one = heads.get(i);
      int end = i + 1 < heads.size() ? heads.get(i + 1).start : log.length();
      String rest = log.substring(Math.min(one.end, end), end);
      records.add(
          new LogRecord(
              one.start,
              one.level,
              one.source,
              one.message,
              PlainText.of(rest).lines().filter(line -> !line.isBlank()).toList()));
    }
    return records;
  }

  /** The first line of a record. */
  private record MatchedHead(int start, int end, String level, String source, String message) {
    static MatchedHead of(Matcher line) {
      return new MatchedHead(
          line.start(),
          line.end(),
          line.group("level"),
          line.group("source"),
          PlainText.of(line.group("message")).strip());
    }
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

  /** Whether what follows it was written in another layout and names a failure. */
  public boolean isTroubled() {
    return rest.stream().anyMatch(line -> FOREIGN_LEVEL.matcher(line).find());
  }

  /** Whether what it says itself belongs to a failure, and not only what follows it. */
  boolean isTelling() {
    return isSevere() || isWarning() || level.isEmpty();
  }

  /** Whether it tells of what may be one. */
  public boolean isWarning() {
    return WARNING.contains(level);
  }
}
