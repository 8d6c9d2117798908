package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import jollycrate.json.Json;

/**
 * What names in braces stand for, like {@code {ticket}}. A name that is not known stays as it is
 * written.
 */
public record Values(Map<String, JsonNode> known) {
  /** None. */
  public static final Values NONE = new Values(Map.of());

  /** A name that stands for another word each time a check is made. */
  public static final String UNIQUE = "unique";

  /** How a name is written. */
  static final String NAME_FORM = "[a-z][a-z0-9-]*";

  private static final Pattern NAMED = Pattern.compile("\\{(" + NAME_FORM + ")}");

  /** These and one more, or another one of that name. */
  public Values and(String name, JsonNode value) {
    Map<String, JsonNode> more = new LinkedHashMap<>(known);
    more.put(name, value);
    return new Values(more);
  }

  /** The names in a text, known or not. */
  public static List<String> names(String text) {
    return NAMED.matcher(text).results().map(found -> found.group(1)).toList();
  }

  /** A text with what its names stand for. */
  public String in(String text) {
    return filled(text, UnaryOperator.identity());
  }

  /** A path with its query: what names stand for is encoded (RFC 3986), but where it begins it. */
  public String inPath(String path) {
    Matcher first = NAMED.matcher(path);
    if (first.lookingAt() && known.containsKey(first.group(1))) {
      return shown(known.get(first.group(1))) + inPath(path.substring(first.end()));
    }
    return filled(
        path, value -> URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20"));
  }

  private String filled(String text, UnaryOperator<String> form) {
    return NAMED.matcher(text).replaceAll(found -> Matcher.quoteReplacement(value(found, form)));
  }

  private String value(MatchResult found, UnaryOperator<String> form) {
    JsonNode value = known.get(found.group(1));
    return value == null ? found.group() : form.apply(shown(value));
  }

  private static String shown(JsonNode value) {
    return value.isValueNode() ? value.asText() : Json.line(value);
  }

  /** JSON in whose texts names are; one that is a text by itself becomes the value, as it is. */
  public JsonNode in(JsonNode json) {
    if (json.isTextual()) {
      Matcher whole = NAMED.matcher(json.textValue());
      return whole.matches() && known.containsKey(whole.group(1))
          ? known.get(whole.group(1))
          : JsonNodeFactory.instance.textNode(in(json.textValue()));
    }
    if (json.isArray()) {
      return JsonNodeFactory.instance
          .arrayNode()
          .addAll(json.valueStream().map(this::in).collect(Collectors.toList()));
    }
    if (json.isObject()) {
      ObjectNode filled = JsonNodeFactory.instance.objectNode();
      json.properties().forEach(one -> filled.set(one.getKey(), in(one.getValue())));
      return filled;
    }
    return json;
  }

  /** A request with what its names stand for. */
  public Check.Request in(Check.Request request) {
    Ask ask = request.ask();
    Expect expect = request.expect();
    return new Check.Request(
        new Ask(
            ask.method(),
            inPath(ask.path()),
            texts(ask.headers()),
            ask.sent()
                .map(
                    sent ->
                        new Ask.Sent(
                            sent.json().map(this::in), texts(sent.fields()), sent.uploads())),
            ask.user()),
        new Expect(
            expect.status(),
            new Expect.Head(
                texts(expect.head().headers()),
                expect.head().type(),
                expect.head().leadsTo().map(this::inPath)),
            in(expect.body()),
            expect.within(),
            expect.certificateDays()),
        request.remember(),
        request.pages(),
        request.browser());
  }

  private Expect.Body in(Expect.Body body) {
    Map<String, JsonNode> json = new LinkedHashMap<>();
    body.json().forEach((pointer, value) -> json.put(in(pointer), in(value)));
    return new Expect.Body(
        body.text().map(this::in), body.matches(), json, body.size(), body.sameAs());
  }

  private Map<String, String> texts(Map<String, String> texts) {
    Map<String, String> filled = new LinkedHashMap<>();
    texts.forEach((name, text) -> filled.put(name, in(text)));
    return filled;
  }
}
