package jollycrate.watch;

import java.util.List;
import jollycrate.check.CheckResult;
import jollycrate.foresee.Finding;
import jollycrate.pack.Packed;
import jollycrate.server.Cause;
import jollycrate.server.Server;
import jollycrate.step.Step;
import jollycrate.step.StepList;

/** Told of what happens, as it happens. */
public interface Progress {
  /** Nobody listens. */
  Progress NONE = new Progress() {};

  /** The artifact was packed. */
  default void packed(Packed packed) {}

  /** An earlier delivery that had not ended is settled first. */
  default void recovering(int delivery, String what) {}

  /**
   * A look at a server was taken.
   *
   * @param path where on the server, like /spokes
   */
  default void looked(Aim aim, String path) {}

  /** Everything foreseen. */
  default void foreseen(List<Finding> findings) {}

  /** The steps that will be carried out, with unified diffs of text files. */
  default void planned(Server server, StepList steps, List<String> diffs) {}

  /** A step begins. */
  default void step(Server server, Step step) {}

  /** A wait goes on. */
  default void waitingFor(String what) {}

  /** A check ended. */
  default void checked(CheckResult result) {}

  /** The delivery failed and is taken back. */
  default void takingBack(Cause cause) {}
}
