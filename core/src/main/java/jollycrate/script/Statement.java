package jollycrate.script;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One statement of SQL.
 *
 * @param line of its file in which it begins, from 1
 */
public record Statement(int line, String text) {
  private static final int LONGEST_CONTROL = 100;

  /** Statements that begin or end a transaction (ISO/IEC 9075-2, 17). */
  private static final Pattern TRANSACTION =
      Pattern.compile(
          "(?:BEGIN|START\\s+TRANSACTION|COMMIT|END|ROLLBACK|ABORT)"
              + "(?:\\s+(?:WORK|TRANSACTION|AND\\s.*))?",
          Pattern.CASE_INSENSITIVE | Pattern.DOTALL);

  /**
   * What hides a semicolon: comments, texts and quoted names (ISO/IEC 9075-2, 5.2 and 5.3), names
   * in backquotes as MySQL has them, and texts in dollar quotes as PostgreSQL and H2 have them.
   */
  private static final Pattern TOKEN =
      Pattern.compile(
          "(?<comment>--[^\\n]*+)|(?<begin>/\\*)|'[^']*+'|\"[^\"]*+\"|`[^`]*+`|(?<dollar>\\$\\w*+\\$).*?\\k<dollar>"
              + "|(?<open>['\"`]|\\$\\w*+\\$)|(?<end>;)|(?<word>[^\\s'\"`;/$-]++|[/$-])",
          Pattern.DOTALL);

  /**
   * The statements of a text.
   *
   * @param splitAt line that ends a statement; empty: a semicolon does
   * @throws IllegalArgumentException when a quote or a comment is never closed
   */
  static List<Statement> of(String text, Optional<String> splitAt) {
    return splitAt.isPresent() ? byLines(text, splitAt.get()) : bySemicolons(text);
  }

  private static List<Statement> byLines(String text, String splitAt) {
    List<Statement> statements = new ArrayList<>();
    StringBuilder gathered = new StringBuilder();
    int begin = 1;
    int number = 0;
    boolean blank = true;
    for (String line : text.lines().toList()) {
      number++;
      if (line.strip().equalsIgnoreCase(splitAt.strip())) {
        add(statements, begin, gathered.toString());
        gathered.setLength(0);
        blank = true;
      } else {
        begin = blank ? number : begin;
        blank = blank && line.isBlank();
        gathered.append(line).append('\n');
      }
    }
    add(statements, begin, gathered.toString());
    return List.copyOf(statements);
  }

  private static List<Statement> bySemicolons(String text) {
    List<Statement> statements = new ArrayList<>();
    Matcher tokens = TOKEN.matcher(text);
    Lines lines = new Lines(text);
    int from = -1;
    while (tokens.find()) {
      if (tokens.group("open") != null) {
        throw neverClosed(lines, tokens);
      }
      if (tokens.group("begin") != null) {
        int end = endOfComment(text, tokens.start());
        if (end < 0) {
          throw neverClosed(lines, tokens);
        }
        tokens.region(end, text.length());
      } else if (tokens.group("end") != null) {
        if (from >= 0) {
          add(statements, lines.at(from), text.substring(from, tokens.start()));
        }
        from = -1;
      } else if (from < 0 && tokens.group("comment") == null) {
        from = tokens.start();
      }
    }
    if (from >= 0) {
      add(statements, lines.at(from), text.substring(from));
    }
    return List.copyOf(statements);
  }

  private static IllegalArgumentException neverClosed(Lines lines, Matcher tokens) {
    return new IllegalArgumentException(
        "line " + lines.at(tokens.start()) + ": " + tokens.group() + " is never closed");
  }

  /**
   * Where a comment ends. Comments may stand in comments (ISO/IEC 9075-2, 5.2), but not in every
   * database: where that leaves one open, the first end is taken.
   */
  private static int endOfComment(String text, int begin) {
    int depth = 1;
    int at = begin + 2;
    while (depth > 0) {
      int close = text.indexOf("*/", at);
      if (close < 0) {
        int first = text.indexOf("*/", begin + 2);
        return first < 0 ? -1 : first + 2;
      }
      int open = text.indexOf("/*", at);
      boolean deeper = open >= 0 && open < close;
      depth += deeper ? 1 : -1;
      at = (deeper ? open : close) + 2;
    }
    return at;
  }

  /** Numbers of lines, asked for from the top to the bottom. */
  private static final class Lines {
    private final String text;
    private int seen;
    private int line = 1;

    Lines(String text) {
      this.text = text;
    }

    int at(int position) {
      for (; seen < position; seen++) {
        line += text.charAt(seen) == '\n' ? 1 : 0;
      }
      return line;
    }
  }

  /** Whether it begins or ends a transaction by itself. */
  public boolean controlsTransaction() {
    return text.length() < LONGEST_CONTROL && TRANSACTION.matcher(text).matches();
  }

  private static void add(List<Statement> statements, int line, String text) {
    if (!text.isBlank()) {
      statements.add(new Statement(line, text.strip()));
    }
  }
}
