package jollycrate.app;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.tomlj.Toml;

/** The values of one server, line by line in a text; whatever else stands there is kept. */
final class ServerTable {
  /** A key with a value of one line, and a comment behind it. */
  private static final Pattern ON_ONE_LINE =
      Pattern.compile(
          "(\\s*\"?[\\w-]+\"?\\s*=\\s*)"
              + "(?:\"(?:[^\"\\\\]++|\\\\.)*+\"|'[^']*'|\\[[^\\[\\]#]*]|[\\w.+-]+)"
              + "(\\s*(?:#.*)?\\s*)");

  private final List<String> lines;
  private final int begin;

  private ServerTable(List<String> lines, int begin) {
    this.lines = lines;
    this.begin = begin;
  }

  /**
   * That of a server.
   *
   * @param text of the whole file
   * @throws NotWrittenSo when it has no table of its own there
   */
  static ServerTable of(String text, String name) {
    List<String> lines = new ArrayList<>(List.of(text.split("(?<=\n)")));
    Pattern header = header(name, "]");
    for (int i = 0; i < lines.size(); i++) {
      if (header.matcher(lines.get(i)).matches()) {
        return new ServerTable(lines, i);
      }
    }
    throw new NotWrittenSo("it");
  }

  /** What cannot be changed line by line. */
  static final class NotWrittenSo extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NotWrittenSo(String what) {
      super(what);
    }
  }

  /** The first line of a table of a server; what ends its name tells whether it is one within. */
  static Pattern header(String name, String end) {
    String header = "\\s*\\[\\s*server\\s*\\.\\s*(?:NAME|\"NAME\"|'NAME')\\s*" + end + ".*";
    return Pattern.compile(header.replace("NAME", Pattern.quote(name)), Pattern.DOTALL);
  }

  /** The whole text. */
  String text() {
    return String.join("", lines);
  }

  /**
   * Gives a key another value; an empty one takes it out.
   *
   * @throws NotWrittenSo when it does not stand on a line of its own
   */
  void set(String key, String value) {
    for (int i = begin + 1; i < end(); i++) {
      if (lines.get(i).strip().matches("\"?" + Pattern.quote(key) + "\"?\\s*=.*")) {
        replace(i, key, value);
        return;
      }
    }
    if (!value.isEmpty()) {
      add(key, value);
    }
  }

  /** Index of the line behind it. */
  private int end() {
    int end = begin + 1;
    while (end < lines.size() && !lines.get(end).stripLeading().startsWith("[")) {
      end++;
    }
    return end;
  }

  private void replace(int at, String key, String value) {
    Matcher line = ON_ONE_LINE.matcher(lines.get(at));
    if (!line.matches()) {
      throw new NotWrittenSo("'" + key + "'");
    }
    if (value.isEmpty()) {
      lines.remove(at);
    } else {
      lines.set(at, line.group(1) + toml(value) + line.group(2));
    }
  }

  /** Behind its last value; comments and blank lines behind that belong to what follows. */
  private void add(String key, String value) {
    String lineEnd = lines.get(begin).endsWith("\r\n") ? "\r\n" : "\n";
    int last = end() - 1;
    while (last > begin && isEmpty(lines.get(last))) {
      last--;
    }
    if (!lines.get(last).endsWith("\n")) {
      lines.set(last, lines.get(last) + lineEnd);
    }
    lines.add(last + 1, key + " = " + toml(value) + lineEnd);
  }

  private static boolean isEmpty(String line) {
    return line.isBlank() || line.stripLeading().startsWith("#");
  }

  /** What is no number, truth, list or text in quotes is a text. */
  private static String toml(String value) {
    return value.matches("-?\\d+|true|false|[\\[\"'].*")
        ? value
        : "\"" + Toml.tomlEscape(value) + "\"";
  }
}
