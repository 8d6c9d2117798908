package jollycrate.delivery;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.app.Secrets;

/**
 * Finds values in configuration that people must not see, by the name of their attribute: an
 * earlier delivery's secret stands in its files, and nobody resolves it any more.
 */
final class HiddenValues {
  private static final Pattern NAMED =
      Pattern.compile(
          "(?i)[\\w.-]*(?:password|passwd|secret|credential|connectionProperties)[\\w.-]*"
              + "\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

  private HiddenValues() {}

  /** Hides them from every text from now on; those that have a label of their own keep it. */
  static void in(String text, Secrets secrets) {
    Matcher matcher = NAMED.matcher(text);
    while (matcher.find()) {
      String value = matcher.group(1) == null ? matcher.group(2) : matcher.group(1);
      if (secrets.mask(value).equals(value)) {
        secrets.hide(value, Secrets.HIDDEN);
      }
    }
  }
}
