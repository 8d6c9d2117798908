package jollycrate.pack;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;

/** Files of several libraries that are read together at run time, as one. */
final class MergedTexts {
  private MergedTexts() {}

  /** Lines, each once, in the order they first appear; as for {@link java.util.ServiceLoader}. */
  static String lines(List<String> texts) {
    Set<String> lines = new LinkedHashSet<>();
    texts.forEach(text -> text.lines().map(String::strip).forEach(lines::add));
    lines.remove("");
    return String.join("\n", lines) + "\n";
  }

  /** Keys with the values of every text that has them, joined by commas. */
  static String properties(List<String> texts) {
    Map<String, Set<String>> values = new TreeMap<>();
    for (String text : texts) {
      Properties properties = new Properties();
      try {
        properties.load(new StringReader(text));
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
      properties.stringPropertyNames().stream()
          .sorted()
          .forEach(
              key -> {
                Set<String> known = values.computeIfAbsent(key, k -> new LinkedHashSet<>());
                for (String value : properties.getProperty(key).split(",")) {
                  known.add(value.strip());
                }
              });
    }
    StringBuilder text = new StringBuilder();
    values.forEach(
        (key, all) ->
            text.append(escaped(key)).append('=').append(String.join(",", all)).append('\n'));
    return text.toString();
  }

  private static String escaped(String key) {
    return key.replace("\\", "\\\\").replace(":", "\\:").replace("=", "\\=").replace(" ", "\\ ");
  }
}
