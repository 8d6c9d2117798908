package jollycrate.check;

import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.github.difflib.DiffUtils;
import com.github.difflib.UnifiedDiffUtils;
import com.google.re2j.Pattern;
import java.net.URI;
import java.util.List;
import jollycrate.json.Json;

/**
 * How two answers to the same question differ, line by line.
 *
 * @param varies what is left out: JSON Pointers (RFC 6901) and regular expressions
 */
record AnswerDiff(List<String> varies) {
  private static final int MOST_CHARS = 1 << 20;
  private static final int AROUND = 1;
  private static final int HEADS = 2;

  /**
   * Lines taken out begin with a minus, those put in with a plus; empty when nothing differs.
   *
   * @param oneBase address of the application that gave the first; what refers to itself is alike
   * @param otherBase address of the one that gave the second
   */
  List<String> between(Answer one, URI oneBase, Answer other, URI otherBase) {
    List<String> before = lines(one, oneBase);
    List<String> after = lines(other, otherBase);
    List<String> unified =
        UnifiedDiffUtils.generateUnifiedDiff("", "", before, DiffUtils.diff(before, after), AROUND);
    return unified.stream().skip(HEADS).filter(line -> !line.startsWith("@@")).toList();
  }

  private List<String> lines(Answer answer, URI base) {
    String text = answer.text();
    String head = text.substring(0, Math.min(text.length(), MOST_CHARS));
    String path = base.getPath();
    String alike = head.replace(base.toString(), "/");
    alike = path.equals("/") ? alike : alike.replace("\"" + path, "\"/");
    if (answer.type().contains("json") && head.length() == text.length()) {
      alike = sorted(alike);
    }
    for (String rule : varies) {
      alike =
          rule.startsWith("/")
              ? alike
              : Pattern.compile(rule).matcher(alike).replaceAll("(varies)");
    }
    return alike.lines().toList();
  }

  private String sorted(String text) {
    try {
      JsonNode tree = Json.parse(text);
      varies.stream().filter(rule -> rule.startsWith("/")).forEach(rule -> remove(tree, rule));
      return Json.told()
          .writerWithDefaultPrettyPrinter()
          .with(JsonNodeFeature.WRITE_PROPERTIES_SORTED)
          .writeValueAsString(tree);
    } catch (JsonProcessingException noJson) {
      return text;
    }
  }

  private static void remove(JsonNode tree, String rule) {
    JsonPointer pointer = JsonPointer.compile(rule);
    JsonNode parent = tree.at(pointer.head());
    if (parent instanceof ObjectNode object) {
      object.remove(pointer.last().getMatchingProperty());
    } else if (parent instanceof ArrayNode array && pointer.last().mayMatchElement()) {
      array.remove(pointer.last().getMatchingIndex());
    }
  }
}
