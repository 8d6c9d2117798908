package jollycrate.check;

import java.time.Duration;
import java.util.regex.Pattern;

/**
 * What came back for a request.
 *
 * @param tag {@code ETag} of the answer (RFC 9110, section 8.8.3), else empty
 * @param failure why nothing came; empty when an answer came
 * @param next what to do about that
 */
public record Answer(
    int status, String type, String body, String tag, Duration took, String failure, String next) {
  /** How servers make a tag of a file: its size and its time. */
  private static final Pattern OF_A_FILE = Pattern.compile("(W/)?\"\\d+-\\d+\"");

  static Answer failed(Duration took, String failure, String next) {
    return new Answer(0, "", "", "", took, failure, next);
  }

  /** Whether a server read it from a file by itself. */
  boolean fromFile() {
    return OF_A_FILE.matcher(tag).matches();
  }

  /** Whether an answer came at all. */
  public boolean came() {
    return failure.isEmpty();
  }
}
