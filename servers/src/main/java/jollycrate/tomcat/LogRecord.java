package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One record of a log in Tomcat's one-line format, with the lines that follow it.
 *
 * @param position of its first character in the text it was read from
 * @param rest lines behind the first one: a stack trace, mostly
 */
record LogRecord(
    int position, String level, String thread, String source, String message, List<String> rest) {
  private static final Pattern HEAD =
      Pattern.compile(
          "^\\d\\d-\\w{3}-\\d{4} [\\d:.]+ (\\w+) \\[([^\\]]*)\\] (\\S+) (.*)$", Pattern.MULTILINE);

  static List<LogRecord> in(String log) {
    List<LogRecord> records = new ArrayList<>();
    Matcher head = HEAD.matcher(log);
    boolean found = head.find();
    while (found) {
      int position = head.start();
      int end = head.end();
      String level = head.group(1);
      String thread = head.group(2);
      String source = head.group(3);
      String message = head.group(4).strip();
      found = head.find();
      String rest = log.substring(end, found ? head.start() : log.length());
      records.add(
          new LogRecord(
              position,
              level,
              thread,
              source,
              message,
              rest.lines().filter(line -> !line.isBlank()).toList()));
    }
    return records;
  }

  boolean isSevere() {
    return level.equals("SEVERE");
  }
}
