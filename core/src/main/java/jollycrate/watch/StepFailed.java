package jollycrate.watch;

import jollycrate.server.Cause;

/** A step did not come about. */
public final class StepFailed extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final transient Cause cause;

  public StepFailed(Cause cause) {
    super(cause.what());
    this.cause = cause;
  }

  public Cause why() {
    return cause;
  }
}
