package jollycrate.build;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.file.PlainText;

/**
 * What a build printed.
 *
 * @param text all of it, without codes for colours and cursors
 */
record BuildOutput(String text) {
  /** A file and a line, as compilers of many languages write them, and that it is an error. */
  private static final Pattern PLACED =
      Pattern.compile(
          "(?i)(?=.*error)(?!.*failed to execute goal).*[\\w)]\\.\\w{1,5}[:(]\\[?\\d+[,:\\])].*");

  private static final Pattern ERROR = Pattern.compile("(?i).*\\b(?:error|failed|failure)\\b.*");

  /** What a build tool says about itself after every failure. */
  private static final Pattern EPILOGUE =
      Pattern.compile(
          ".*\\[ERROR] *(?:$|-> \\[Help|\\[Help|To see the full stack|Re-run Maven|For more information"
              + "|After correcting the problems|mvn <args>).*");

  private static final int MOST_ERRORS = 20;
  private static final int LAST_LINES = 12;

  static BuildOutput of(String printed) {
    return new BuildOutput(PlainText.of(printed).strip() + "\n");
  }

  /** The errors, each once, else the last lines. */
  String told() {
    List<String> lines =
        text.lines().filter(line -> !EPILOGUE.matcher(line).matches()).distinct().toList();
    return Stream.of(PLACED, ERROR)
        .map(pattern -> lines.stream().filter(line -> pattern.matcher(line).matches()).toList())
        .filter(errors -> !errors.isEmpty())
        .findFirst()
        .map(errors -> errors.stream().limit(MOST_ERRORS))
        .orElseGet(() -> lines.stream().skip(Math.max(0, lines.size() - LAST_LINES)))
        .collect(Collectors.joining("\n"));
  }
}
