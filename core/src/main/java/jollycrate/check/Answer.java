package jollycrate.check;

import java.time.Duration;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * What came back for a request.
 *
 * @param tag {@code ETag} of the answer (RFC 9110, section 8.8.3), else empty
 * @param why nothing came, if so
 * @param failure the same in words; empty when an answer came
 * @param next what to do about that
 */
public record Answer(
    int status,
    String type,
    String body,
    String tag,
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
    /** Somebody asked to stop. */
    GIVEN_UP
  }

  /** How servers make a tag of a file: its size and its time. */
  private static final Pattern OF_A_FILE = Pattern.compile("(W/)?\"\\d+-\\d+\"");

  /** One that came. */
  public static Answer came(int status, String type, String body, String tag, Duration took) {
    return new Answer(status, type, body, tag, took, Why.CAME, "", "");
  }

  static Answer failed(Duration took, Why why, String failure, String next) {
    return new Answer(0, "", "", "", took, why, failure, next);
  }

  /** Whether a server read it from a file by itself. */
  boolean fromFile() {
    return OF_A_FILE.matcher(tag).matches();
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
