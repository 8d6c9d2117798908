package jollycrate.ssh;

import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import jollycrate.host.Words;

/** Ends a process that does not get somewhere in time; closing it says that it got there. */
final class Limit implements AutoCloseable {
  private static final long LOOK_AGAIN_MILLIS = 100;

  private final CountDownLatch arrived = new CountDownLatch(1);
  private volatile boolean over;

  private Limit() {}

  /** Of a process, from now on. */
  static Limit of(Process process, Duration time) {
    return of(process, time, () -> true, time);
  }

  /**
   * The same in two stretches.
   *
   * @param whole longest time for both
   * @param halfway whether the first is over
   * @param second longest time for the second
   */
  static Limit of(Process process, Duration whole, BooleanSupplier halfway, Duration second) {
    Limit limit = new Limit();
    long end = System.nanoTime() + whole.toNanos();
    Words.inBackground(
        () -> {
          long until = end;
          boolean half = false;
          while (!limit.hasArrived()) {
            if (!half && halfway.getAsBoolean()) {
              half = true;
              until = Math.min(end, System.nanoTime() + second.toNanos());
            }
            if (System.nanoTime() > until) {
              limit.over = true;
              process.destroyForcibly();
              return;
            }
          }
        });
    return limit;
  }

  private boolean hasArrived() {
    try {
      return arrived.await(LOOK_AGAIN_MILLIS, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return true;
    }
  }

  /** Whether it took too long. */
  boolean isOver() {
    return over;
  }

  @Override
  public void close() {
    arrived.countDown();
  }
}
