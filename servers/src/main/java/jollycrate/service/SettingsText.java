package jollycrate.service;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.dataformat.javaprop.JavaPropsMapper;
import com.fasterxml.jackson.dataformat.toml.TomlMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLGenerator;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.pack.PropertiesText;

/** A settings file in the format that its name tells: properties, YAML, TOML or JSON. */
final class SettingsText {
  private static final Pattern BROKEN_ESCAPE = Pattern.compile("\\\\u(?![0-9a-fA-F]{4})");

  private final String ending;

  SettingsText(String name) {
    this.ending = name.substring(name.lastIndexOf('.') + 1);
  }

  private ObjectMapper mapper() {
    return switch (ending) {
      case "toml" -> new TomlMapper();
      case "json" -> new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
      default ->
          YAMLMapper.builder()
              .disable(YAMLGenerator.Feature.WRITE_DOC_START_MARKER)
              .disable(YAMLGenerator.Feature.SPLIT_LINES)
              .enable(YAMLGenerator.Feature.MINIMIZE_QUOTES)
              .enable(YAMLGenerator.Feature.ALWAYS_QUOTE_NUMBERS_AS_STRINGS)
              .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
              .build();
    };
  }

  /** The settings as such a file. */
  String written(ObjectNode settings) {
    try {
      if (ending.equals("properties")) {
        return PropertiesText.of(new JavaPropsMapper().writeValueAsMap(settings));
      }
      String text = mapper().writeValueAsString(settings);
      return text.endsWith("\n") ? text : text + "\n";
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** How a value stands in such a file, with its quotes and without. */
  List<String> written(String value) {
    String line = written(JsonNodeFactory.instance.objectNode().put("value", value)).strip();
    String text = line.replaceFirst("(?s)^\\{?\\s*\"?value\"?\\s*[:=]\\s*", "");
    String whole = ending.equals("json") ? text.replaceFirst("\\s*}$", "") : text;
    boolean quoted = whole.length() > 1 && whole.matches("(?s)([\"']).*\\1");
    return quoted ? List.of(whole, whole.substring(1, whole.length() - 1)) : List.of(whole);
  }

  /** A text of this format with one more value; empty when that cannot be done without harm. */
  Optional<String> with(String text, String key, String value) {
    if (!ending.equals("properties")) {
      return Optional.empty();
    }
    String start = text.isEmpty() || text.endsWith("\n") ? "" : "\n";
    return Optional.of(text + start + PropertiesText.of(Map.of(key, value)));
  }

  /** What is wrong with a text of this format, with its line; empty when all is well. */
  Optional<String> fault(String text) {
    try {
      if (ending.equals("properties")) {
        new Properties().load(new StringReader(text));
      } else {
        JsonNode tree = mapper().readTree(text);
        if (!tree.isObject() && !tree.isMissingNode() && !tree.isNull()) {
          return Optional.of("it holds no keys with values");
        }
      }
      return Optional.empty();
    } catch (JsonProcessingException e) {
      return Optional.of(place(e.getLocation()) + e.getOriginalMessage().lines().findFirst().get());
    } catch (IllegalArgumentException e) {
      Matcher broken = BROKEN_ESCAPE.matcher(text);
      long line = broken.find() ? text.substring(0, broken.start()).lines().count() : 0;
      return Optional.of((line > 0 ? "line " + line + ": " : "") + e.getMessage());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String place(JsonLocation location) {
    return location == null || location.getLineNr() < 1
        ? ""
        : "line " + location.getLineNr() + ", column " + location.getColumnNr() + ": ";
  }
}
