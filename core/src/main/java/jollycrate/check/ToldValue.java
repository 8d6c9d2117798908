package jollycrate.check;

import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.Optional;
import jollycrate.app.Check;
import jollycrate.json.Json;

/** What an answer tells at a place. */
final class ToldValue {
  private ToldValue() {}

  /** The value; empty when nothing stands there. */
  static Optional<JsonNode> of(Check.Place place, Answer answer) {
    return switch (place.in()) {
      case HEADER ->
          Optional.of(answer.header(place.told()))
              .filter(value -> !value.isEmpty())
              .map(TextNode::valueOf);
      case TEXT -> inText(place.told(), answer.text());
      case JSON -> inJson(place.told(), answer.text());
    };
  }

  private static Optional<JsonNode> inText(String pattern, String text) {
    Matcher found = Pattern.compile(pattern).matcher(text);
    return found.find()
        ? Optional.ofNullable(found.group(1)).map(TextNode::valueOf)
        : Optional.empty();
  }

  private static Optional<JsonNode> inJson(String pointer, String text) {
    try {
      return Optional.of(Json.parse(text).at(JsonPointer.compile(pointer)))
          .filter(value -> !value.isMissingNode() && !value.isNull());
    } catch (JsonProcessingException noJson) {
      return Optional.empty();
    }
  }
}
