package jollycrate.delivery;

import java.io.IOException;
import java.io.StringReader;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.secret.SecretNames;
import jollycrate.secret.Secrets;
import jollycrate.secret.WellKnown;

/**
 * Finds values in configuration that people must not see, by the name of their attribute: an
 * earlier delivery's secret stands in its files, and nobody resolves it any more.
 */
final class HiddenValues {
  private static final Pattern NAMED =
      Pattern.compile(
          "(?i)[\\w.-]*"
              + SecretNames.PART
              + "[\\w.-]*(?<!file)\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

  /** What says by itself that its value is secret: a line of ours, or an element. */
  private static final Pattern MARKED =
      Pattern.compile("(?m)^secret\\.[^=\\n]*=(.+)$|description=\"secret\"\\s+value=\"([^\"]+)\"");

  private HiddenValues() {}

  /** Hides them from every text from now on; those that have a label of their own keep it. */
  static void in(String text, Secrets secrets) {
    Matcher matcher = NAMED.matcher(text);
    Matcher marked = MARKED.matcher(text);
    while (marked.find()) {
      String value = marked.group(1) == null ? marked.group(2) : marked.group(1);
      secrets.hide(value, Secrets.HIDDEN);
      secrets.hide(unescaped(value), Secrets.HIDDEN);
    }
    while (matcher.find()) {
      String value = matcher.group(1) == null ? matcher.group(2) : matcher.group(1);
      boolean known = WellKnown.contains(value) || isSaidOtherwise(text, value);
      if (!known && secrets.mask(value).equals(value)) {
        secrets.hide(value, Secrets.HIDDEN);
      }
    }
  }

  /**
   * Whether the same stands there as the value of something that is no secret, as a user's name.
   */
  private static boolean isSaidOtherwise(String text, String value) {
    Matcher said = Pattern.compile("[\"']" + Pattern.quote(value) + "[\"']").matcher(text);
    Matcher secret = NAMED.matcher(text);
    long secrets =
        secret
            .results()
            .filter(it -> value.equals(it.group(1)) || value.equals(it.group(2)))
            .count();
    return said.results().count() > secrets;
  }

  /**
   * A text in which such values are hidden where they stand, also those that are words of every
   * day.
   */
  static String masked(String text, Secrets secrets) {
    return NAMED
        .matcher(secrets.mask(text))
        .replaceAll(
            found -> {
              int group = found.group(1) == null ? 2 : 1;
              String value = found.group(group);
              boolean told = value.isEmpty() || value.startsWith("(");
              String shown = told ? value : Secrets.HIDDEN;
              String whole = found.group();
              int from = found.start(group) - found.start();
              return Matcher.quoteReplacement(
                  whole.substring(0, from) + shown + whole.substring(from + value.length()));
            });
  }

  /** Such a line is written as in a file of properties. */
  private static String unescaped(String written) {
    Properties one = new Properties();
    try {
      one.load(new StringReader("value=" + written));
    } catch (IOException | IllegalArgumentException e) {
      return written;
    }
    return one.getProperty("value");
  }
}
