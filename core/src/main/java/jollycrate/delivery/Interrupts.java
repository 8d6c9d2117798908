package jollycrate.delivery;

import java.util.concurrent.atomic.AtomicBoolean;
import jollycrate.server.Cause;

/** A wish to stop, made known by a signal and obeyed between two steps. */
public final class Interrupts {
  private static final Cause INTERRUPTED =
      Cause.of("interrupted by a signal", "Run the command again when ready");

  private final AtomicBoolean asked = new AtomicBoolean();

  /** Asks whoever carries out to stop and take back. */
  public void ask() {
    asked.set(true);
  }

  /** Whether somebody asked. */
  public boolean isAsked() {
    return asked.get();
  }

  void obey() {
    if (isAsked()) {
      throw new StepFailed(INTERRUPTED);
    }
  }
}
