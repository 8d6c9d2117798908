package jollycrate.wildfly;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A value in a WildFly's configuration: a text, or {@code ${name,other:default}}, which the first
 * of those system properties says.
 */
record Expression(String written) {
  private static final Pattern FORM = Pattern.compile("\\$\\{([^}:]+)(?::([^}]*))?\\}");

  /** The property that says it first; empty for a plain text. */
  Optional<String> property() {
    Matcher form = FORM.matcher(written);
    return form.matches() ? Optional.of(form.group(1).split(",")[0].strip()) : Optional.empty();
  }

  /** What it is with such properties; as it is written where nothing says. */
  String value(Map<String, String> properties) {
    Matcher form = FORM.matcher(written);
    if (!form.matches()) {
      return written;
    }
    return Arrays.stream(form.group(1).split(","))
        .map(String::strip)
        .filter(properties::containsKey)
        .map(properties::get)
        .findFirst()
        .or(() -> Optional.ofNullable(form.group(2)))
        .orElse(written);
  }
}
