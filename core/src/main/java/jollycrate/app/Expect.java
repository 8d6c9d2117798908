package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a request of a check expects of its answer.
 *
 * @param within longest time from sending the request to the last byte
 * @param certificateDays for how many days the certificate shown there is valid still, at least
 */
public record Expect(
    Statuses status,
    Head head,
    Body body,
    Optional<Duration> within,
    Optional<Integer> certificateDays) {
  /** What may be asked of a place in JSON instead of its value. */
  private static final Set<String> QUESTIONS = Set.of("exists", "count", "least", "most");

  /**
   * What is expected of the headers.
   *
   * @param headers values by name
   * @param type of media (RFC 9110, section 8.3); its parameters count where they are told
   * @param leadsTo where it sends one on: below the context path, or a whole URL
   */
  public record Head(Map<String, String> headers, Optional<String> type, Optional<String> leadsTo) {
    /** Any. */
    public static final Head ANY = new Head(Map.of(), Optional.empty(), Optional.empty());
  }

  /**
   * What is expected of what comes behind the headers.
   *
   * @param text must stand in it
   * @param matches regular expression that must match somewhere in it
   * @param json what is expected by JSON Pointer (RFC 6901): a value, or a table of {@code exists},
   *     {@code count}, {@code least} and {@code most}
   * @param size how many bytes it has
   * @param sameAs a file that it is equal to
   */
  public record Body(
      Optional<String> text,
      Optional<String> matches,
      Map<String, JsonNode> json,
      Optional<Size> size,
      Optional<Same> sameAs) {
    /** Any. */
    public static final Body ANY =
        new Body(Optional.empty(), Optional.empty(), Map.of(), Optional.empty(), Optional.empty());

    /** Any with such a text in it. */
    public static Body with(String text) {
      return new Body(
          Optional.of(text), Optional.empty(), Map.of(), Optional.empty(), Optional.empty());
    }
  }

  /** How many bytes; both ends count. */
  public record Size(long least, long most) {}

  /**
   * A file as it stood when the check was read.
   *
   * @param digest SHA-256, in hexadecimal digits
   */
  public record Same(String file, long bytes, String digest) {}

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
    return new Expect(status, Head.ANY, Body.ANY, Optional.empty(), Optional.empty());
  }
}
