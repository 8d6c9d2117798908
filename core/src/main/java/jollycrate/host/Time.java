package jollycrate.host;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.locks.LockSupport;

/** The clock, and pauses between two looks at a fact. */
public interface Time {
  /** Now. */
  Instant now();

  /** Lets that much time go by before the next look. */
  void pause(Duration duration);

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
