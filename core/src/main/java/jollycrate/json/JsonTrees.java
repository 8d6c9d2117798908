package jollycrate.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.Map;

/** Trees of JSON, read by a parser and written by a generator (RFC 8259). */
final class JsonTrees {
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  static final JsonFactory FACTORY = new JsonFactory();

  private JsonTrees() {}

  /** A text that is one value as a whole; one without any value is a missing node. */
  static JsonNode whole(JsonParser parser) throws IOException {
    try (parser) {
      JsonNode tree = next(parser);
      if (parser.nextToken() != null) {
        throw new JsonParseException(parser, "Something stands behind the end of the value");
      }
      return tree;
    }
  }

  /** The first value of a text, whatever follows; one without any is a missing node. */
  static JsonNode first(JsonParser parser) throws IOException {
    try (parser) {
      return next(parser);
    }
  }

  private static JsonNode next(JsonParser parser) throws IOException {
    return parser.nextToken() == null ? NODES.missingNode() : value(parser);
  }

  /** The value that begins with the token at hand. The parser bounds how deeply it is nested. */
  private static JsonNode value(JsonParser parser) throws IOException {
    return switch (parser.currentToken()) {
      case START_OBJECT -> object(parser);
      case START_ARRAY -> array(parser);
      case VALUE_STRING -> NODES.textNode(parser.getText());
      case VALUE_NUMBER_INT -> integer(parser);
      case VALUE_NUMBER_FLOAT -> NODES.numberNode(parser.getDoubleValue());
      case VALUE_TRUE, VALUE_FALSE -> NODES.booleanNode(parser.getBooleanValue());
      default -> NODES.nullNode();
    };
  }

  private static JsonNode integer(JsonParser parser) throws IOException {
    return switch (parser.getNumberType()) {
      case INT -> NODES.numberNode(parser.getIntValue());
      case LONG -> NODES.numberNode(parser.getLongValue());
      default -> NODES.numberNode(parser.getBigIntegerValue());
    };
  }

  private static ObjectNode object(JsonParser parser) throws IOException {
    ObjectNode object = NODES.objectNode();
    while (parser.nextToken() != JsonToken.END_OBJECT) {
      String name = parser.currentName();
      parser.nextToken();
      object.set(name, value(parser));
    }
    return object;
  }

  private static ArrayNode array(JsonParser parser) throws IOException {
    ArrayNode array = NODES.arrayNode();
    while (parser.nextToken() != JsonToken.END_ARRAY) {
      array.add(value(parser));
    }
    return array;
  }

  /** Writes a tree. */
  static void write(JsonNode tree, JsonGenerator out) throws IOException {
    switch (tree.getNodeType()) {
      case OBJECT -> {
        out.writeStartObject();
        for (Map.Entry<String, JsonNode> field : tree.properties()) {
          out.writeFieldName(field.getKey());
          write(field.getValue(), out);
        }
        out.writeEndObject();
      }
      case ARRAY -> {
        out.writeStartArray();
        for (JsonNode element : tree) {
          write(element, out);
        }
        out.writeEndArray();
      }
      case STRING -> out.writeString(tree.textValue());
      case BOOLEAN -> out.writeBoolean(tree.booleanValue());
      case NUMBER -> number(tree, out);
      default -> out.writeNull();
    }
  }

  /** What has no number in JSON, as 1e400 has none here, is written as a text. */
  private static void number(JsonNode tree, JsonGenerator out) throws IOException {
    if (tree.isFloatingPointNumber()) {
      out.writeNumber(tree.doubleValue());
    } else {
      out.writeNumber(tree.asText());
    }
  }
}
