package jollycrate.delivery;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.check.CheckResult;
import jollycrate.foresee.Finding;
import jollycrate.json.MayLack;
import jollycrate.server.Cause;
import jollycrate.step.Step;
import jollycrate.stock.Space;
import jollycrate.watch.Aim;

/**
 * How a delivery went.
 *
 * @param aim what it was about
 * @param number of the delivery; 0 when nothing was to be changed
 * @param steps up to the proof, and after it
 * @param diffs of text files, as unified diffs
 * @param cause why it failed
 * @param left what needs hands when it is stuck
 * @param stays data of the application that was left in the server's folder
 * @param note what people should know besides; may be empty
 * @param down what did not answer meanwhile; empty when nothing was interrupted
 * @param measured what the release needed that came up with it; empty when none did
 */
public record DeliveryOutcome(
    Result result,
    @JsonUnwrapped Aim aim,
    int number,
    List<Finding> findings,
    List<Step> steps,
    List<String> diffs,
    List<CheckResult> checks,
    Optional<Cause> cause,
    List<String> left,
    List<Space> stays,
    String note,
    Optional<Downtime> down,
    @MayLack Optional<Measured> measured,
    long millis) {

  /**
   * What a release that came up needed.
   *
   * @param up from its switch, or the start of its server, until it was up
   * @param firstAnswer of the first check that was answered; zero when none was
   * @param memory resident bytes of its server and what that started, after the checks; 0 when they
   *     could not be seen
   */
  public record Measured(Duration up, Duration firstAnswer, long memory) {}

  /**
   * What users noticed of a change.
   *
   * @param time for how long at most there was no answer
   * @param wholeServer whether the server was restarted, with all that stands on it
   * @param others further applications that were interrupted with it
   */
  public record Downtime(Duration time, boolean wholeServer, List<String> others) {}

  /** The kinds of ends. */
  public enum Result {
    /** Delivered and proven. */
    DELIVERED,
    /** Delivered and started, but nothing that was asked shows that it works. */
    DELIVERED_UNPROVEN,
    /** Taken away and seen gone. */
    REMOVED,
    /** Stopped and seen gone; it can be started again. */
    STOPPED,
    /** The server itself was changed, and what was up on it is up again. */
    CHANGED,
    /** The same of a server that does not run: nothing can show yet that it starts. */
    CHANGED_UNPROVEN,
    /** Everything stood there, and the checks pass. */
    UNCHANGED,
    /** Everything stood there, and a check fails. */
    CHECKS_FAILED,
    /** Would be done. */
    DRY_RUN,
    /** A blocker was found; nothing was touched. */
    BLOCKED,
    /** Failed, and everything is as before. */
    TAKEN_BACK,
    /** Interrupted, and everything is as before. */
    INTERRUPTED,
    /** Neither done nor undone: needs hands. */
    STUCK
  }
}
