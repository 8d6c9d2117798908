package jollycrate.app;

import com.fasterxml.jackson.core.io.JsonStringEncoder;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.stream.Collectors;
import org.tomlj.TomlArray;
import org.tomlj.TomlTable;

/** TOML values as JSON; dates and times become texts. */
final class TomlJson {
  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private TomlJson() {}

  /** A value, or a list of values, as a line of both TOML and JSON. */
  static String text(Object value) {
    if (value instanceof TomlArray array) {
      return array.toList().stream().map(TomlJson::text).collect(Collectors.joining(",", "[", "]"));
    }
    return value instanceof Number || value instanceof Boolean
        ? value.toString()
        : "\"" + new String(JsonStringEncoder.getInstance().quoteAsString(value.toString())) + "\"";
  }

  static JsonNode of(Object value) {
    if (value instanceof TomlTable table) {
      ObjectNode object = JSON.objectNode();
      table.keySet().forEach(key -> object.set(key, of(table.get(List.of(key)))));
      return object;
    }
    if (value instanceof TomlArray array) {
      ArrayNode list = JSON.arrayNode();
      array.toList().forEach(element -> list.add(of(element)));
      return list;
    }
    if (value instanceof Long number) {
      return JSON.numberNode(number);
    }
    if (value instanceof Double number) {
      return JSON.numberNode(number);
    }
    return value instanceof Boolean flag
        ? JSON.booleanNode(flag)
        : JSON.textNode(String.valueOf(value));
  }
}
