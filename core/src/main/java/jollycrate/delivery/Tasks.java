package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.check.CheckResult;
import jollycrate.script.Undo;
import jollycrate.server.Placement;
import jollycrate.step.Step;

/** What steps ask for that only the delivery at hand can do. */
@FunctionalInterface
interface Tasks {
  /** Runs the checks that prove it. */
  List<CheckResult> check(Placement placement);

  /**
   * Applies a script.
   *
   * @throws jollycrate.watch.StepFailed when that does not come about
   */
  default void apply(Step.ApplyScript step) {
    throw new IllegalStateException("no script is described here");
  }

  /** What takes a script back; to be kept before it is applied. */
  default Optional<Undo> undo(Step.ApplyScript step) {
    return Optional.empty();
  }
}
