package jollycrate.watch;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How grave a line of a log is, by the words that logging libraries write near its beginning. */
public enum LogLevel {
  ERROR,
  WARNING,
  INFO,
  DETAIL,
  /** The line does not say. */
  NONE;

  private static final int NEAR = 120;
  private static final Pattern WORD =
      Pattern.compile(
          "(?<![\\w.])(SEVERE|ERROR|FATAL|WARNING|WARN|INFO|CONFIG|DEBUG|TRACE|FINE|FINER|FINEST"
              + "|[Ee]rror|[Ww]arning)(?![\\w.])");

  /** A letter before the code of a message, which ends in a letter too. */
  private static final Pattern CODED = Pattern.compile(" ([A-Z]) (?=[A-Z]{3,6}\\d{4}[A-Z]: )");

  private static final Pattern THROWN =
      Pattern.compile(
          "^(Exception in thread|Error: |(?:[\\w$]+\\.){1,60}[A-Z]\\w*(?:Exception|Error)\\b)");

  /** The level that a line tells. */
  public static LogLevel of(String line) {
    String begin = line.substring(0, Math.min(NEAR, line.length()));
    Matcher coded = CODED.matcher(begin);
    if (coded.find()) {
      return ofLetter(coded.group(1));
    }
    Matcher word = WORD.matcher(begin);
    if (THROWN.matcher(line).find()) {
      return ERROR;
    }
    if (!word.find()) {
      return NONE;
    }
    return switch (word.group(1).toUpperCase(Locale.ROOT)) {
      case "SEVERE", "ERROR", "FATAL" -> ERROR;
      case "WARNING", "WARN" -> WARNING;
      case "INFO" -> INFO;
      default -> DETAIL;
    };
  }

  private static LogLevel ofLetter(String letter) {
    return switch (letter) {
      case "E", "F" -> ERROR;
      case "W" -> WARNING;
      case "D" -> DETAIL;
      default -> INFO;
    };
  }
}
