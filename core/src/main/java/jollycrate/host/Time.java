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

  /** The time of this machine. */
  static Time system() {
    return new Time() {
      @Override
      public Instant now() {
        return Instant.now();
      }

      @Override
      public void pause(Duration duration) {
        LockSupport.parkNanos(duration.toNanos());
      }
    };
  }
}
