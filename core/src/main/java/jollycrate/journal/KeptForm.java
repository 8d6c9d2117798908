package jollycrate.journal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import jollycrate.json.Json;

/**
 * Reads what is kept of a release. The first versions of the tool wrote a check as one level: what
 * is sent stood beside what is expected; later ones parted the two, for one request alone.
 */
final class KeptForm {
  private static final String METHOD = "method";
  private static final String ASK = "ask";
  private static final String EXPECT = "expect";
  private static final String SENT = "sent";
  private static final String HEADERS = "headers";
  private static final String PAGE = "page";
  private static final String TEXT = "text";
  private static final String JSON = "application/json";

  private KeptForm() {}

  /** A release; empty when the document is none. */
  static Optional<EarlierRelease> read(byte[] document) {
    Optional<JsonNode> tree = Json.read(document, JsonNode.class);
    tree.map(read -> read.path("described")).ifPresent(KeptForm::renewAll);
    return tree.flatMap(read -> Json.read(read, EarlierRelease.class));
  }

  private static void renewAll(JsonNode described) {
    if (described.path("access") instanceof ObjectNode access && !access.has("logIns")) {
      access.putObject("logIns");
    }
    if (described instanceof ObjectNode application && !application.has("data")) {
      application.putArray("data");
    }
    for (JsonNode node : described.path("access").path("logIns")) {
      if (node instanceof ObjectNode logIn && !logIn.has("post")) {
        logIn.putNull("post");
      }
    }
    for (JsonNode node : described.path("dataSources")) {
      if (node instanceof ObjectNode source && !source.has("scripts")) {
        source.putArray("scripts");
      }
    }
    for (JsonNode node : described.path("checks")) {
      if (node instanceof ObjectNode check && check.has(METHOD)) {
        part(check);
      }
      if (node instanceof ObjectNode check && check.has(ASK)) {
        asOneOfSeveral(check);
      }
    }
  }

  private static void part(ObjectNode check) {
    ObjectNode ask = check.objectNode();
    moved(check, ask, List.of(METHOD, "path", "user"));
    ask.putObject(HEADERS);
    JsonNode body = check.path("body");
    if (body.isMissingNode() || body.isNull()) {
      ask.putNull(SENT);
    } else {
      ask.putObject(SENT).put("type", JSON).put(TEXT, Json.line(body));
    }
    JsonNode status = check.path("status");
    ObjectNode expect = check.objectNode();
    moved(check, expect, List.of(TEXT, "json", "within"));
    expect.putArray("status").add(status.isInt() ? status.asText() : "2xx");
    expect.putObject(HEADERS);
    List.of("type", "matches", "leadsTo").forEach(expect::putNull);
    check.remove(List.of("body", "status"));
    check.set(ASK, ask);
    check.set(EXPECT, expect);
    check.put(PAGE, false).putNull("cell");
  }

  private static void asOneOfSeveral(ObjectNode check) {
    if (check.path(ASK).path(SENT) instanceof ObjectNode sent) {
      resend(sent);
    }
    ObjectNode expect = (ObjectNode) check.path(EXPECT);
    moved(expect, expect.putObject("head"), List.of(HEADERS, "type", "leadsTo"));
    ObjectNode body = expect.putObject("body");
    moved(expect, body, List.of(TEXT, "matches", "json"));
    body.putNull("size").putNull("sameAs");
    expect.putNull("certificateDays");
    ObjectNode request = check.objectNode();
    moved(check, request, List.of(ASK, EXPECT));
    request.putObject("remember");
    request.put("pages", check.remove(PAGE).asBoolean() ? 1 : 0).put("browser", false);
    check.putArray("requests").add(request);
    check.putArray("afterwards");
    ObjectNode manner = check.putObject("manner");
    manner.put("retryFor", "PT0S").putNull("load");
    manner.putArray("varies");
    moved(check, manner, List.of("fromHost"));
  }

  private static void resend(ObjectNode sent) {
    boolean json = sent.path("type").asText().equals(JSON);
    String text = sent.path(TEXT).asText();
    sent.removeAll();
    sent.set("json", json ? Json.read(text, JsonNode.class).orElseThrow() : null);
    ObjectNode fields = sent.putObject("fields");
    if (!json) {
      for (String field : text.split("&")) {
        String[] pair = field.split("=", 2);
        fields.put(decoded(pair[0]), decoded(pair[1]));
      }
    }
    sent.putArray("uploads");
  }

  private static String decoded(String text) {
    return URLDecoder.decode(text, StandardCharsets.UTF_8);
  }

  private static void moved(ObjectNode from, ObjectNode to, List<String> fields) {
    fields.forEach(field -> to.set(field, from.remove(field)));
  }
}
