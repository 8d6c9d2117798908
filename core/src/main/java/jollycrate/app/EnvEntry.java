package jollycrate.app;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.secret.Reference;

/**
 * An environment entry that an application looks up below {@code java:comp/env/} (Jakarta EE
 * Platform 10, section 5.4).
 *
 * @param value as text; of a secret, the reference to it
 * @param type class that its form suggests; what the artifact declares for that name counts more
 * @param secret where a secret value stands
 */
public record EnvEntry(String name, String value, String type, Optional<Reference> secret) {
  private static final String LANG = "java.lang.";

  /** Types that an entry may have, of those that a value can be written for. */
  private static final Map<String, Function<String, ?>> TYPES =
      Map.of(
          LANG + "String", text -> text,
          LANG + "Boolean", EnvEntry::truth,
          LANG + "Byte", Byte::valueOf,
          LANG + "Short", Short::valueOf,
          LANG + "Integer", Integer::valueOf,
          LANG + "Long", Long::valueOf,
          LANG + "Float", Float::valueOf,
          LANG + "Double", Double::valueOf,
          LANG + "Character", EnvEntry::character);

  /** Whether a text is a value of a type; of any type that is not known here. */
  public static boolean fits(String text, String type) {
    try {
      TYPES.getOrDefault(type, any -> any).apply(text);
      return true;
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  private static boolean truth(String text) {
    if (!text.equals("true") && !text.equals("false")) {
      throw new IllegalArgumentException(text);
    }
    return Boolean.parseBoolean(text);
  }

  private static char character(String text) {
    if (text.length() != 1) {
      throw new IllegalArgumentException(text);
    }
    return text.charAt(0);
  }

  /** The type that a value of TOML suggests; empty for one that cannot be an entry. */
  static Optional<String> typeOf(Object value) {
    if (value instanceof Long number) {
      return Optional.of(LANG + (number == number.intValue() ? "Integer" : "Long"));
    }
    return value instanceof String || value instanceof Boolean || value instanceof Double
        ? Optional.of(value.getClass().getName())
        : Optional.empty();
  }

  /** The same whose secret is looked for in another place. */
  EnvEntry from(Path folder) {
    return new EnvEntry(name, value, type, secret.map(reference -> reference.from(folder)));
  }
}
