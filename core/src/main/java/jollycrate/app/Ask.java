package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a request of a check sends. In its texts a name in braces stands for a value that is known
 * when it is sent, see {@link Values}.
 *
 * @param method of HTTP, in capitals
 * @param path below the context path, with query
 * @param headers by name, beside those that every request has
 * @param sent what is sent behind them
 * @param user who logs in
 */
public record Ask(
    String method,
    String path,
    Map<String, String> headers,
    Optional<Sent> sent,
    Optional<String> user) {
  /**
   * What is sent behind the headers: JSON, else fields of a form, with files or without.
   *
   * @param fields of a form, by name
   */
  public record Sent(Optional<JsonNode> json, Map<String, String> fields, List<Upload> uploads) {
    /** What was kept of a check tells that there is no JSON by a null of JSON. */
    public Sent {
      json = json.filter(value -> !value.isNull());
    }

    /** As JSON (RFC 8259). */
    public static Sent json(JsonNode value) {
      return new Sent(Optional.of(value), Map.of(), List.of());
    }
  }

  /**
   * A file that is sent with a form (RFC 7578), as it stood when the check was read.
   *
   * @param file its name
   * @param base64 what stands in it (RFC 4648, section 4)
   */
  public record Upload(String field, String file, String base64) {}

  /** Asks for a path, and sends nothing else. */
  public static Ask get(String path, Optional<String> user) {
    return new Ask("GET", path, Map.of(), Optional.empty(), user);
  }

  /** Whether nothing is meant to be changed by it (RFC 9110, section 9.2.1). */
  public boolean isSafe() {
    return method.equals("GET") || method.equals("HEAD");
  }
}
