package jollycrate.pack;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Properties;
import java.util.stream.Collectors;

/** Properties as a text that depends on nothing but them: sorted, without a date. */
public final class PropertiesText {
  private PropertiesText() {}

  /** The text, in ASCII. */
  public static String of(Map<String, String> values) {
    Properties properties = new Properties();
    properties.putAll(values);
    StringWriter text = new StringWriter();
    try {
      properties.store(text, null);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return text.toString()
        .lines()
        .filter(line -> !line.startsWith("#"))
        .sorted()
        .map(PropertiesText::ascii)
        .collect(Collectors.joining("\n", "", "\n"));
  }

  private static String ascii(String line) {
    StringBuilder ascii = new StringBuilder();
    line.chars()
        .forEach(
            c -> {
              if (c < 0x7f) {
                ascii.append((char) c);
              } else {
                ascii.append(String.format("\\u%04X", c));
              }
            });
    return ascii.toString();
  }
}
