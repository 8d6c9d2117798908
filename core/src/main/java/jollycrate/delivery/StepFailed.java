package jollycrate.delivery;

import jollycrate.server.Cause;

/** A step did not come about. */
final class StepFailed extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final transient Cause cause;

  StepFailed(Cause cause) {
    super(cause.what());
    this.cause = cause;
  }

  Cause why() {
    return cause;
  }
}
