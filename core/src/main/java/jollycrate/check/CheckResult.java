package jollycrate.check;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.server.Cause;

/**
 * How one check went.
 *
 * @param request method and URL
 * @param status HTTP status, 0 when no answer came
 * @param took from sending the request to the last byte
 * @param misses what was expected and what came; empty when it passed
 * @param cause why, as far as it is known
 */
public record CheckResult(
    String name,
    String request,
    int status,
    Duration took,
    List<Miss> misses,
    Optional<Cause> cause) {

  /** Whether everything came as expected. */
  @JsonProperty
  public boolean passed() {
    return misses.isEmpty();
  }

  /** The same with another cause. */
  public CheckResult because(Optional<Cause> other) {
    return new CheckResult(name, request, status, took, misses, other);
  }

  /** One difference. */
  public record Miss(String what, String expected, String came) {}
}
