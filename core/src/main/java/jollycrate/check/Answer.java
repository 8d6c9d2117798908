package jollycrate.check;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import jollycrate.file.Digests;

/**
 * What came back for a request.
 *
 * @param headers by name, whose case does not matter; of several with one name all values
 * @param body what came behind them
 * @param why nothing came, if so
 * @param failure the same in words; empty when an answer came
 * @param next what to do about that
 */
public record Answer(
    int status,
    Map<String, String> headers,
    Body body,
    Duration took,
    Why why,
    String failure,
    String next) {
  /** Why no answer came. */
  public enum Why {
    /** One came. */
    CAME,
    /** Nothing came back when a connection was asked for. */
    SILENCE,
    /** The connection was refused (RFC 9293, section 3.10.7.1). */
    REFUSED,
    /** Somebody on the way said that there is none (RFC 1812, section 5.2.7.1). */
    NO_WAY,
    /** No name service knows the name. */
    NO_NAME,
    /** There is no trust in who answers (RFC 9110, section 4.3.4). */
    NO_TRUST,
    /** The connection was closed before an answer. */
    CUT,
    /** Connected, but there was no answer in time. */
    LATE,
    /** An answer began, and did not end in time. */
    ENDLESS,
    /** Somebody asked to stop. */
    GIVEN_UP
  }

  /** How servers make a tag of a file: its size and its time. */
  private static final Pattern OF_A_FILE = Pattern.compile("(W/)?\"\\d+-\\d+\"");

  /**
   * What came behind the headers, wholly.
   *
   * @param text what is looked through: of a very long one its beginning
   * @param bytes how many came
   * @param digest SHA-256 of all of them, in hexadecimal digits, computed when it is asked for
   */
  public record Body(String text, long bytes, Supplier<String> digest) {
    /** None. */
    static final Body NONE = Body.of("");

    /** Of a text, in UTF-8. */
    public static Body of(String text) {
      byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
      return new Body(text, bytes.length, () -> Digests.of(bytes));
    }
  }

  /** One that came. */
  public static Answer came(int status, Map<String, String> headers, Body body, Duration took) {
    return new Answer(status, headers, body, took, Why.CAME, "", "");
  }

  static Answer failed(Duration took, Why why, String failure, String next) {
    return new Answer(0, Map.of(), Body.NONE, took, why, failure, next);
  }

  /** The text that is looked through. */
  String text() {
    return body.text();
  }

  /** A header; empty when it did not come. */
  String header(String name) {
    return headers.getOrDefault(name, "");
  }

  /** Type of media with its parameters; empty when it is not told. */
  String type() {
    return header("Content-Type");
  }

  /** Whether a server may have read it from a file by itself: it tells when that was changed. */
  boolean fromFile() {
    return OF_A_FILE.matcher(header("ETag")).matches() || !header("Last-Modified").isEmpty();
  }

  /** Why none came; empty when one did. */
  Optional<Why> unanswered() {
    return Optional.of(why).filter(told -> told != Why.CAME);
  }

  /** Whether an answer came at all. */
  public boolean came() {
    return failure.isEmpty();
  }
}
