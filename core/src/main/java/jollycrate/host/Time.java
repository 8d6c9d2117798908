package jollycrate.host;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;

/** The clock, and pauses between two looks at a fact. */
public interface Time {
  /** Now. */
  Instant now();

  /** Lets that much time go by before the next look. */
  void pause(Duration duration);

  /**
   * Looks again and again whether something is so.
   *
   * @param pause time between two looks
   * @param waiting told before each pause
   * @return false when it was not so within the limit
   */
  default boolean until(BooleanSupplier so, Duration limit, Duration pause, Runnable waiting) {
    Instant end = now().plus(limit);
    while (!so.getAsBoolean()) {
      if (now().isAfter(end)) {
        return false;
      }
      waiting.run();
      pause(pause);
    }
    return true;
  }

  /** The time of this machine; from the first look on it never jumps. */
  static Time system() {
    Instant first = Instant.now();
    long ticks = System.nanoTime();
    return new Time() {
      @Override
      public Instant now() {
        return first.plusNanos(System.nanoTime() - ticks);
      }

      @Override
      public void pause(Duration duration) {
        LockSupport.parkNanos(duration.toNanos());
      }
    };
  }
}
