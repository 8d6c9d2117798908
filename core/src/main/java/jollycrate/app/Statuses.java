package jollycrate.app;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Status codes of HTTP (RFC 9110, section 15).
 *
 * @param told each like {@code 200}, {@code 2xx} or {@code 200-204}
 */
public record Statuses(List<String> told) {
  /** It went well. */
  public static final Statuses SUCCESS = new Statuses(List.of("2xx"));

  /** It is somewhere else. */
  public static final Statuses REDIRECTION = new Statuses(List.of("3xx"));

  private static final Pattern FORM = Pattern.compile("([1-5])xx|([1-5]\\d\\d)(?:-([1-5]\\d\\d))?");

  private static final int HUNDRED = 100;

  @Override
  @JsonValue
  public List<String> told() {
    return told;
  }

  /** Whether a text is a status, or says which ones are meant. */
  static boolean isOne(String text) {
    Matcher form = FORM.matcher(text);
    return form.matches()
        && (form.group(3) == null
            || Integer.parseInt(form.group(2)) <= Integer.parseInt(form.group(3)));
  }

  /** Whether it is among them. */
  public boolean holds(int status) {
    return told.stream().anyMatch(one -> holds(one, status));
  }

  private static boolean holds(String one, int status) {
    Matcher form = FORM.matcher(one);
    if (!form.matches()) {
      return false;
    }
    if (form.group(1) != null) {
      return status / HUNDRED == Integer.parseInt(form.group(1));
    }
    int least = Integer.parseInt(form.group(2));
    int most = form.group(3) == null ? least : Integer.parseInt(form.group(3));
    return status >= least && status <= most;
  }

  @Override
  public String toString() {
    return equals(SUCCESS) ? "200 to 299" : String.join(", ", told);
  }
}
