package jollycrate.trial;

import java.time.Duration;
import jollycrate.delivery.DeliveryOutcome;

/**
 * How an application fared in one shape.
 *
 * @param shape how people call it
 * @param where it ran
 * @param cannot why it could not be tried; empty when it was
 * @param bytes of the artifact, or of the unpacked files
 * @param start from the start of the process until it was up
 * @param first time of its first answer
 * @param memory resident bytes of all its processes after the checks
 * @param passed number of checks that pass
 * @param checks number of checks
 * @param outcome how its delivery went; null when it was not tried
 */
public record ShapeRow(
    String shape,
    String where,
    String cannot,
    long bytes,
    Duration start,
    Duration first,
    long memory,
    int passed,
    int checks,
    DeliveryOutcome outcome) {

  /** A shape that could not be tried. */
  static ShapeRow not(String shape, String why) {
    return new ShapeRow(shape, "", why, 0, Duration.ZERO, Duration.ZERO, 0, 0, 0, null);
  }

  /** Whether it ran and every check passed. */
  public boolean isGood() {
    return cannot.isEmpty() && checks > 0 && passed == checks;
  }
}
