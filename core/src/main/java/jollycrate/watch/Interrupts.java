package jollycrate.watch;

import java.util.concurrent.atomic.AtomicBoolean;
import jollycrate.server.Cause;

/** A wish to stop, made known by a signal and obeyed between two steps. */
public final class Interrupts {
  private static final Cause INTERRUPTED =
      Cause.of("interrupted by a signal", "Run the command again when ready");

  private final AtomicBoolean asked = new AtomicBoolean();
  private final AtomicBoolean harmless = new AtomicBoolean();

  /** Asks whoever carries out to stop and take back. */
  public void ask() {
    asked.set(true);
  }

  /** From now on nothing is changed, so that whoever is asked to stop may do so at once. */
  public void changesNothing() {
    harmless.set(true);
  }

  /** Whether there is nothing that would have to be taken back. */
  public boolean mayEndAtOnce() {
    return harmless.get();
  }

  /** Whether somebody asked. */
  public boolean isAsked() {
    return asked.get();
  }

  public void obey() {
    if (isAsked()) {
      throw new StepFailed(INTERRUPTED);
    }
  }
}
