package jollycrate.cli.output;

import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How text is set off.
 *
 * @param colour whether the standard output shows colours
 * @param live whether the standard error is a terminal, so that a line may be drawn over
 * @param width of a line in characters
 */
public record Style(boolean colour, boolean live, int width) {
  private static final int DEFAULT_WIDTH = 100;
  private static final int LEAST_WIDTH = 60;

  /** One character, or one escape sequence that sets a colour (ECMA-48, section 8.3.117). */
  private static final Pattern ONE = Pattern.compile("\u001b\\[[0-9;]*m|.");

  /**
   * As the launcher found the terminal; NO_COLOR (no-color.org) switches colours off.
   *
   * @param environment value of a variable, null when it is not set
   */
  public static Style ofThisProcess(UnaryOperator<String> environment) {
    String noColour = environment.apply("NO_COLOR");
    boolean wanted = noColour == null || noColour.isEmpty();
    int width = Integer.getInteger("jolly.width", DEFAULT_WIDTH);
    return new Style(
        wanted && Boolean.getBoolean("jolly.out.terminal"),
        Boolean.getBoolean("jolly.err.terminal"),
        Math.max(LEAST_WIDTH, width));
  }

  /** Things that went well. */
  public String good(String text) {
    return set("32", text);
  }

  /** Things that failed. */
  public String bad(String text) {
    return set("1;31", text);
  }

  /** Things that go away. */
  public String gone(String text) {
    return set("31", text);
  }

  /** Things to look at. */
  public String odd(String text) {
    return set("33", text);
  }

  /** Things of less weight. */
  public String faint(String text) {
    return set("90", text);
  }

  /** Names of things. */
  public String strong(String text) {
    return set("1", text);
  }

  /** Where something is. */
  public String place(String text) {
    return set("36", text);
  }

  /** A line that is no longer than the screen is wide. */
  String cut(String line) {
    Matcher parts = ONE.matcher(line);
    StringBuilder cut = new StringBuilder();
    int seen = 0;
    while (parts.find()) {
      boolean escape = parts.group().startsWith("\u001b");
      if (escape || ++seen < width) {
        cut.append(parts.group());
      }
    }
    return cut.toString();
  }

  private String set(String code, String text) {
    return colour && !text.isEmpty() ? "\u001b[" + code + "m" + text + "\u001b[0m" : text;
  }
}
