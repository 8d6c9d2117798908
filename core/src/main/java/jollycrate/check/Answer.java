package jollycrate.check;

import java.time.Duration;

/**
 * What came back for a request.
 *
 * @param failure why nothing came; empty when an answer came
 * @param next what to do about that
 */
public record Answer(
    int status, String type, String body, Duration took, String failure, String next) {

  static Answer failed(Duration took, String failure, String next) {
    return new Answer(0, "", "", took, failure, next);
  }

  /** Whether an answer came at all. */
  public boolean came() {
    return failure.isEmpty();
  }
}
