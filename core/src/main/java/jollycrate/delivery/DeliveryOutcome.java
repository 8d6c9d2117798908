package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.check.CheckResult;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;
import jollycrate.step.Step;

/**
 * How a delivery went.
 *
 * @param act deploy or undeploy
 * @param version of the release, may be empty
 * @param number of the delivery; 0 when nothing was to be changed
 * @param address where people open the application; empty after an undeploy
 * @param steps up to the proof, and after it
 * @param diffs of text files, as unified diffs
 * @param cause why it failed
 * @param left what needs hands when it is stuck
 * @param stays data of the application that was left in the server's folder
 * @param note what people should know besides; may be empty
 */
public record DeliveryOutcome(
    Result result,
    String act,
    String application,
    String version,
    String server,
    int number,
    String address,
    List<Finding> findings,
    List<Step> steps,
    List<String> diffs,
    List<CheckResult> checks,
    Optional<Cause> cause,
    List<String> left,
    List<String> stays,
    String note,
    long millis) {

  /** The kinds of ends. */
  public enum Result {
    /** Delivered and proven. */
    DELIVERED,
    /** Delivered and started, but nothing that was asked shows that it works. */
    DELIVERED_UNPROVEN,
    /** Taken away and seen gone. */
    REMOVED,
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
