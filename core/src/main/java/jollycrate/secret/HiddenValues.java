package jollycrate.secret;

import java.io.IOException;
import java.io.StringReader;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;

/**
 * Finds values in configuration that people must not see, by the name of their attribute: an
 * earlier delivery's secret stands in its files, and nobody resolves it any more.
 */
public final class HiddenValues {
  private static final Pattern NAMED =
      Pattern.compile(
          "(?i)(?<![\\w.-])[\\w.-]*"
              + SecretNames.PART
              + "[\\w.-]*(?<!file)\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

  /** The text of an element of that name, or of one that is said to be of that name. */
  private static final Pattern ELEMENT =
      Pattern.compile(
          "(?i)<(?:[\\w.:-]*"
              + SecretNames.PART
              + "[\\w.-]*(?<!file)(?:\\s[^<>]*)?|[^<>]*\\sname=\"[^\"<>]*"
              + SecretNames.PART
              + "[^\"<>]*\"(?:\\s[^<>]*)?)(?:(?<!/)>([^<>]*)</|\\svalue=\"([^\"<>]*)\")");

  /** A line of a file of properties. */
  private static final Pattern LINE =
      Pattern.compile(
          "(?im)^\\s*[\\w.-]*" + SecretNames.PART + "[\\w.-]*(?<!file)\\s*[=:]\\s*(\\S.*)$");

  /** What says by itself that its value is secret: a line of ours, or an element. */
  private static final Pattern MARKED =
      Pattern.compile("(?m)^secret\\.[^=\\n]*=(.+)$|description=\"secret\"\\s+value=\"([^\"]+)\"");

  private HiddenValues() {}

  /**
   * Hides them from every text from now on; those that have a label of their own keep it.
   *
   * @param file the name of the file, whose ending tells its form
   */
  public static void in(String file, String text, Secrets secrets) {
    Pattern further = file.endsWith(".xml") ? ELEMENT : LINE;
    Matcher written = further.matcher(text);
    while (written.find()) {
      String value =
          written.group(1) == null ? written.group(written.groupCount()) : written.group(1);
      String plain = file.endsWith(".xml") ? unescapedXml(value) : unescaped(value);
      if (!WellKnown.contains(plain) && !isSaidOtherwise(text, value)) {
        secrets.hideIfNew(plain);
        secrets.hideIfNew(value);
      }
    }
    Matcher matcher = NAMED.matcher(text);
    Matcher marked = MARKED.matcher(text);
    while (marked.find()) {
      String value = marked.group(1) == null ? marked.group(2) : marked.group(1);
      secrets.hideIfNew(value);
      secrets.hideIfNew(unescaped(value));
    }
    while (matcher.find()) {
      String value = matcher.group(1) == null ? matcher.group(2) : matcher.group(1);
      boolean known = WellKnown.contains(value) || isSaidOtherwise(text, value);
      if (!known && secrets.mask(value).equals(value)) {
        secrets.hideIfNew(value);
      }
    }
  }

  /**
   * Whether the same stands there as the value of something that is no secret, as a user's name.
   */
  private static boolean isSaidOtherwise(String text, String value) {
    Matcher said = Pattern.compile("[\"']" + Pattern.quote(value) + "[\"']").matcher(text);
    long secrets = quoted(NAMED, text, value) + quoted(ELEMENT, text, value);
    return said.results().count() > secrets;
  }

  private static long quoted(Pattern pattern, String text, String value) {
    return pattern
        .matcher(text)
        .results()
        .filter(it -> value.equals(it.group(2)) || pattern == NAMED && value.equals(it.group(1)))
        .count();
  }

  /**
   * A text in which such values are hidden where they stand, also those that are words of every
   * day.
   */
  public static String masked(String text, Secrets secrets) {
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

  private static String unescapedXml(String written) {
    try {
      return XmlDocument.parse("value", "<value>" + written + "</value>").root().text();
    } catch (XmlException e) {
      return written;
    }
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
