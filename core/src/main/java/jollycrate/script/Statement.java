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
  private static final String COMMENT = "--[^\\n]*+|/\\*.*?\\*/";

  /**
   * What hides a semicolon: comments, texts and quoted names (ISO/IEC 9075-2, 5.2 and 5.3), names
   * in backquotes as MySQL has them, and texts in dollar quotes as PostgreSQL and H2 have them.
   */
  private static final Pattern TOKEN =
      Pattern.compile(
          "(?<comment>"
              + COMMENT
              + ")|'[^']*+'|\"[^\"]*+\"|`[^`]*+`|(?<dollar>\\$\\w*+\\$).*?\\k<dollar>"
              + "|(?<open>['\"`]|/\\*|\\$\\w*+\\$)|(?<end>;)|(?<word>[^\\s'\"`;/$-]++|[/$-])",
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
    for (String line : text.lines().toList()) {
      number++;
      if (line.strip().equalsIgnoreCase(splitAt.strip())) {
        add(statements, begin, gathered.toString());
        gathered.setLength(0);
      } else {
        begin = gathered.toString().isBlank() ? number : begin;
        gathered.append(line).append('\n');
      }
    }
    add(statements, begin, gathered.toString());
    return List.copyOf(statements);
  }

  private static List<Statement> bySemicolons(String text) {
    List<Statement> statements = new ArrayList<>();
    Matcher tokens = TOKEN.matcher(text);
    int from = -1;
    while (tokens.find()) {
      if (tokens.group("open") != null) {
        throw new IllegalArgumentException(
            "line " + line(text, tokens.start()) + ": " + tokens.group() + " is never closed");
      }
      if (tokens.group("end") != null) {
        if (from >= 0) {
          add(statements, line(text, from), text.substring(from, tokens.start()));
        }
        from = -1;
      } else if (from < 0 && tokens.group("comment") == null) {
        from = tokens.start();
      }
    }
    if (from >= 0) {
      add(statements, line(text, from), text.substring(from));
    }
    return List.copyOf(statements);
  }

  private static void add(List<Statement> statements, int line, String text) {
    if (!text.isBlank()) {
      statements.add(new Statement(line, text.strip()));
    }
  }

  private static int line(String text, int at) {
    return 1 + (int) text.substring(0, at).chars().filter(c -> c == '\n').count();
  }
}
