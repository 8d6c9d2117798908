package jollycrate.file;

import java.util.Optional;

/**
 * A {@code ${...}} in a text.
 *
 * @param inside what is between the braces
 * @param start where it begins
 * @param end behind its closing brace
 */
public record Placeholder(String inside, int start, int end) {
  private static final String OPENS = "${";

  /** The first one from a position on; an opening that nothing closes is none. */
  public static Optional<Placeholder> in(String text, int from) {
    int start = text.indexOf(OPENS, from);
    int close = start < 0 ? -1 : text.indexOf('}', start);
    return close < 0
        ? Optional.empty()
        : Optional.of(
            new Placeholder(text.substring(start + OPENS.length(), close), start, close + 1));
  }

  /** The text with something in its place. */
  public String replacedIn(String text, String value) {
    return text.substring(0, start) + value + text.substring(end);
  }
}
