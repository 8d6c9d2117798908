package jollycrate.journal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import jollycrate.json.Json;

/**
 * Reads what is kept of a release. Earlier versions of the tool wrote a check as one level: what is
 * sent stood beside what is expected.
 */
final class KeptForm {
  private static final String METHOD = "method";

  private KeptForm() {}

  /** A release; empty when the document is none. */
  static Optional<EarlierRelease> read(byte[] document) {
    Optional<JsonNode> tree = Json.document(document, JsonNode.class);
    tree.ifPresent(read -> read.path("described").path("checks").forEach(KeptForm::renew));
    return tree.flatMap(read -> Json.document(read, EarlierRelease.class));
  }

  private static void renew(JsonNode node) {
    if (!(node instanceof ObjectNode check) || !check.has(METHOD)) {
      return;
    }
    JsonNode body = check.path("body");
    JsonNode status = check.path("status");
    ObjectNode ask = check.objectNode();
    moved(check, ask, List.of(METHOD, "path", "user"));
    ask.putObject("headers");
    if (body.isMissingNode() || body.isNull()) {
      ask.putNull("sent");
    } else {
      ask.putObject("sent").put("type", "application/json").put("text", body.toString());
    }
    ObjectNode expect = check.objectNode();
    moved(check, expect, List.of("text", "json", "within"));
    expect.putArray("status").add(status.isInt() ? status.asText() : "2xx");
    expect.putObject("headers");
    List.of("type", "matches", "leadsTo").forEach(expect::putNull);
    check.remove(List.of("body", "status"));
    check.set("ask", ask);
    check.set("expect", expect);
    check.put("page", false).putNull("cell");
  }

  private static void moved(ObjectNode from, ObjectNode to, List<String> fields) {
    fields.forEach(field -> to.set(field, from.remove(field)));
  }
}
