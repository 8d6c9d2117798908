package jollycrate.check;

import java.time.Duration;
import java.util.List;

/**
 * How long the answers to one request took that was made again and again; all times in
 * milliseconds.
 *
 * @param requests how many were counted
 * @param atOnce how many went on at the same time
 * @param errors how many were answered otherwise than expected, or not at all
 * @param error what came for the first of them; empty when there is none
 * @param perSecond how many were answered in a second
 * @param bars how they are spread, the quickest first
 */
public record Times(
    int requests,
    int atOnce,
    int errors,
    String error,
    double perSecond,
    Percentiles percentiles,
    List<Bar> bars) {
  /** Such a part of the answers took no longer. */
  public record Percentiles(double p50, double p90, double p95, double p99, double longest) {
    /** One of them, by the name that a check uses. */
    double of(String name) {
      return switch (name) {
        case "p50" -> p50;
        case "p90" -> p90;
        case "p95" -> p95;
        case "p99" -> p99;
        default -> longest;
      };
    }
  }

  /**
   * Answers that took about the same.
   *
   * @param upTo longest time of them
   */
  public record Bar(double upTo, long count) {}

  /** Whether a percentile took longer than that. */
  boolean exceeds(String percentile, Duration most) {
    return percentiles.of(percentile) > most.toNanos() / 1e6;
  }
}
