package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a check expects of an answer.
 *
 * @param headers values by name
 * @param type of media, without parameters (RFC 9110, section 8.3)
 * @param text must stand in it
 * @param matches regular expression that must match somewhere in it
 * @param json what is expected by JSON Pointer (RFC 6901): a value, or a table of {@code exists},
 *     {@code count}, {@code least} and {@code most}
 * @param leadsTo where it sends one on: below the context path, or a whole URL
 * @param within longest time from sending the request to the last byte
 */
public record Expect(
    Statuses status,
    Map<String, String> headers,
    Optional<String> type,
    Optional<String> text,
    Optional<String> matches,
    Map<String, JsonNode> json,
    Optional<String> leadsTo,
    Optional<Duration> within) {
  /** What may be asked of a place in JSON instead of its value. */
  private static final Set<String> QUESTIONS = Set.of("exists", "count", "least", "most");

  /** Whether something is asked of a place in JSON, and not a value expected there. */
  public static boolean asks(JsonNode expected) {
    boolean asks = expected.isObject() && !expected.isEmpty();
    for (Map.Entry<String, JsonNode> one : expected.properties()) {
      asks = asks && QUESTIONS.contains(one.getKey());
    }
    return asks;
  }

  /** Any answer with such a status. */
  public static Expect of(Statuses status) {
    return new Expect(
        status,
        Map.of(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Map.of(),
        Optional.empty(),
        Optional.empty());
  }
}
