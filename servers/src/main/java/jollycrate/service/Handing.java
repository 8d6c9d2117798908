package jollycrate.service;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Way;

/** Values on their way to a program, each by the way that was described. */
final class Handing {
  final List<String> arguments = new ArrayList<>();
  final List<String> properties = new ArrayList<>();
  final Map<String, String> variables = new LinkedHashMap<>();
  final Map<String, String> secretVariables = new LinkedHashMap<>();
  final Map<String, JsonNode> settings = new LinkedHashMap<>();
  final List<String> secretSettings = new ArrayList<>();

  /** A text; a secret one goes by no way that others can read. */
  void give(Optional<Way> way, String value, boolean secret) {
    way.ifPresent(known -> give(known, value, JsonNodeFactory.instance.textNode(value), secret));
  }

  /** A number. */
  void give(Optional<Way> way, int value) {
    way.ifPresent(
        known ->
            give(known, String.valueOf(value), JsonNodeFactory.instance.numberNode(value), false));
  }

  private void give(Way way, String value, JsonNode node, boolean secret) {
    String text = way.text();
    switch (way.means()) {
      case ARGUMENT -> {
        arguments.add(text.replace(Way.VALUE, value));
        if (!text.contains(Way.VALUE)) {
          arguments.add(value);
        }
      }
      case PROPERTY -> properties.add("-D" + text + "=" + value);
      case VARIABLE -> (secret ? secretVariables : variables).put(text, value);
      case SETTING -> {
        settings.put(text, node);
        if (secret) {
          secretSettings.add(value);
        }
      }
    }
  }
}
