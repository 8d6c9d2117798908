package jollycrate.host;

import java.util.Map;
import java.util.Optional;

/**
 * An MBean of a Java process.
 *
 * @param keys properties of its name
 * @param values attributes that it has, as texts
 */
public record Bean(String domain, Map<String, String> keys, Map<String, String> values) {
  /** A property of its name; empty when it has none like that. */
  public String key(String name) {
    return keys.getOrDefault(name, "");
  }

  /** An attribute that is a whole number. */
  public Optional<Long> number(String attribute) {
    return Optional.ofNullable(values.get(attribute))
        .filter(text -> text.matches("-?\\d{1,18}"))
        .map(Long::parseLong);
  }
}
