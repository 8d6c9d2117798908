package jollycrate.check;

import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;

/** One request and its answer up to the last byte, given up when that takes too long. */
final class Exchange implements AutoCloseable {
  private static final long LOOK_AGAIN_MILLIS = 50;

  private final HttpUriRequestBase request;
  private final Duration limit;
  private final BooleanSupplier interrupted;
  private final CountDownLatch over = new CountDownLatch(1);
  private final long start = System.nanoTime();
  private volatile Optional<Answer> cut = Optional.empty();
  private volatile boolean begun;

  private Exchange(HttpUriRequestBase request, Duration limit, BooleanSupplier interrupted) {
    this.request = request;
    this.limit = limit;
    this.interrupted = interrupted;
  }

  static Exchange begin(HttpUriRequestBase request, Duration limit, BooleanSupplier interrupted) {
    Exchange exchange = new Exchange(request, limit, interrupted);
    Thread watch = new Thread(exchange::watch, "exchange");
    watch.setDaemon(true);
    watch.start();
    return exchange;
  }

  private void watch() {
    try {
      while (!over.await(LOOK_AGAIN_MILLIS, TimeUnit.MILLISECONDS)) {
        if (interrupted.getAsBoolean()) {
          giveUp(
              Answer.failed(
                  took(), Answer.Why.GIVEN_UP, "given up, as a signal asked to stop", ""));
          return;
        }
        if (took().compareTo(limit) > 0) {
          giveUp(
              Answer.failed(
                  took(),
                  begun ? Answer.Why.ENDLESS : Answer.Why.LATE,
                  (begun
                          ? "an answer began, but did not end within "
                          : "connected, but no answer came within ")
                      + limit.toMillis()
                      + " ms",
                  "Look at what the application does with this request, or raise 'within'"));
          return;
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void giveUp(Answer why) {
    cut = Optional.of(why);
    request.abort();
  }

  /** The first bytes of an answer came. */
  void answerBegins() {
    begun = true;
  }

  /** What to say instead of an answer, when it was given up. */
  Optional<Answer> cut() {
    return cut;
  }

  /** Time since it was begun. */
  Duration took() {
    return Duration.ofNanos(System.nanoTime() - start);
  }

  @Override
  public void close() {
    over.countDown();
  }
}
