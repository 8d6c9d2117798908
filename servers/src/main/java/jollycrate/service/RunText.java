package jollycrate.service;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.stream.Collectors;
import jollycrate.keeper.Keeper;

/**
 * The file that tells the {@link Keeper} what to run, in the format of {@link Properties}: one
 * value a line, in a fixed order.
 */
final class RunText {
  private static final String SECRET = "secret.";

  private final Map<String, String> values = new LinkedHashMap<>();
  private boolean secret;

  void put(String key, String value) {
    values.put(key, value);
  }

  void command(List<String> arguments) {
    put(
        "command",
        arguments.stream()
            .map(argument -> argument.replace("\\", "\\\\").replace("\n", "\\n"))
            .collect(Collectors.joining("\n")));
  }

  void variable(String name, String value, boolean hidden) {
    put((hidden ? SECRET : "") + "env." + name, value);
    secret = secret || hidden;
  }

  /** A value that stands in a file beside this one and must not be shown. */
  void hidden(int number, String value) {
    put(SECRET + "value." + number, value);
    secret = true;
  }

  /** Values that must not be shown, as they stand in the text. */
  List<String> secrets() {
    return values.entrySet().stream()
        .filter(value -> value.getKey().startsWith(SECRET))
        .map(value -> escaped(value.getValue()))
        .toList();
  }

  boolean isSecret() {
    return secret;
  }

  String text() {
    StringBuilder text = new StringBuilder();
    values.forEach((key, value) -> text.append(key).append('=').append(lines(value)).append('\n'));
    return text.toString();
  }

  /** Each line of a value on a line of its own, for those who read the file. */
  private static String lines(String value) {
    return Arrays.stream(value.split("\n", -1))
        .map(RunText::escaped)
        .collect(Collectors.joining("\\n\\\n    "));
  }

  private static String escaped(String value) {
    StringBuilder escaped = new StringBuilder();
    for (int i = 0; i < value.length(); i++) {
      char c = value.charAt(i);
      switch (c) {
        case '\\' -> escaped.append("\\\\");
        case '\n' -> escaped.append("\\n");
        case '\r' -> escaped.append("\\r");
        case '\t' -> escaped.append("\\t");
        case '\f' -> escaped.append("\\f");
        case ' ' -> escaped.append(i == 0 ? "\\ " : " ");
        default -> escaped.append(c);
      }
    }
    return escaped.toString();
  }

  static Properties read(String text) {
    Properties values = new Properties();
    try {
      values.load(new StringReader(text));
    } catch (IOException | IllegalArgumentException e) {
      return new Properties();
    }
    return values;
  }

  /** Values in such a text that must not be shown. */
  static List<String> secretsIn(String text) {
    Properties values = read(text);
    List<String> secrets = new ArrayList<>();
    for (String key : values.stringPropertyNames()) {
      if (key.startsWith(SECRET)) {
        secrets.add(values.getProperty(key));
      }
    }
    return secrets;
  }
}
