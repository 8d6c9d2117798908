package jollycrate.draft;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Checks from the description of an interface (OpenAPI 3): each operation that only reads, and
 * whose parameters have an example or a default.
 *
 * @param base context path of the application, without a slash at its end
 */
record ApiDescription(String base) {
  private static final String FIRST_SUCCESS = "2";

  List<Candidate> in(JsonNode api, Path file) {
    List<Candidate> found = new ArrayList<>();
    String prefix = prefix(api.path("servers").path(0).path("url").asText("/"));
    for (Map.Entry<String, JsonNode> path : api.path("paths").properties()) {
      JsonNode get = path.getValue().path("get");
      boolean open = get.path("security").isMissingNode() && api.path("security").isMissingNode();
      if (get.isObject() && open) {
        filled(path.getKey(), List.of(path.getValue(), get), api)
            .ifPresent(
                asked ->
                    found.add(
                        Candidate.get(
                            prefix + asked,
                            expected(get),
                            file.getFileName() + ", GET " + path.getKey())));
      }
    }
    return found;
  }

  /** Where the interface stands below the context path. */
  private String prefix(String server) {
    String path = URI.create(server.replaceAll("[{}]", "")).getPath();
    String plain = path == null ? "" : path.replaceFirst("/$", "");
    return plain.equals(base) || plain.startsWith(base + "/")
        ? plain.substring(base.length())
        : plain;
  }

  /** A path with an example for each parameter that it needs; empty when one has none. */
  private static Optional<String> filled(String template, List<JsonNode> places, JsonNode api) {
    String path = template;
    List<String> query = new ArrayList<>();
    for (JsonNode place : places) {
      for (JsonNode told : place.path("parameters")) {
        JsonNode parameter = told.has("$ref") ? referred(told.path("$ref").asText(), api) : told;
        boolean inPath = parameter.path("in").asText().equals("path");
        boolean needed = inPath || parameter.path("required").asBoolean();
        Optional<String> example = example(parameter);
        String name = parameter.path("name").asText();
        if (needed && (example.isEmpty() || !inPath && !isQuery(parameter))) {
          return Optional.empty();
        }
        if (inPath) {
          path = path.replace("{" + name + "}", example.orElse(""));
        } else if (needed) {
          query.add(name + "=" + example.orElse(""));
        }
      }
    }
    String whole = path + (query.isEmpty() ? "" : "?" + String.join("&", query));
    return Optional.of(whole).filter(one -> !one.contains("{"));
  }

  private static boolean isQuery(JsonNode parameter) {
    return parameter.path("in").asText().equals("query");
  }

  private static JsonNode referred(String reference, JsonNode api) {
    return reference.startsWith("#/") ? api.at(reference.substring(1)) : api.path("");
  }

  private static Optional<String> example(JsonNode parameter) {
    JsonNode schema = parameter.path("schema");
    JsonNode several = parameter.path("examples");
    JsonNode first = several.isEmpty() ? several : several.iterator().next().path("value");
    return List.of(
            parameter.path("example"),
            first,
            schema.path("example"),
            schema.path("default"),
            schema.path("enum").path(0))
        .stream()
        .filter(JsonNode::isValueNode)
        .filter(value -> !value.isNull())
        .map(value -> URLEncoder.encode(value.asText(), StandardCharsets.UTF_8).replace("+", "%20"))
        .findFirst();
  }

  private static List<String> expected(JsonNode get) {
    List<String> lines = new ArrayList<>();
    for (Map.Entry<String, JsonNode> answer : get.path("responses").properties()) {
      if (answer.getKey().startsWith(FIRST_SUCCESS) && lines.isEmpty()) {
        String status = answer.getKey();
        lines.add("status = " + (status.contains("X") ? "\"2xx\"" : status));
        answer.getValue().path("content").properties().stream()
            .map(content -> content.getKey().replaceFirst(";.*", "").strip())
            .filter(type -> type.matches("[\\w.+-]+/[\\w.+-]+"))
            .findFirst()
            .ifPresent(type -> lines.add("type = " + DraftText.quoted(type)));
      }
    }
    return lines;
  }
}
