package jollycrate.check;

import java.time.Duration;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;

/** One request and its answer up to the last byte, given up when that takes too long. */
final class Exchange {
  private final HttpUriRequestBase request;
  private final Duration limit;
  private final BooleanSupplier interrupted;
  private final long start = System.nanoTime();
  private volatile Optional<Answer> cut = Optional.empty();
  private volatile boolean begun;

  private Exchange(HttpUriRequestBase request, Duration limit, BooleanSupplier interrupted) {
    this.request = request;
    this.limit = limit;
    this.interrupted = interrupted;
  }

  /** Begins one; {@link #look} is to be called again and again until it ends. */
  static Exchange begin(HttpUriRequestBase request, Duration limit, BooleanSupplier interrupted) {
    return new Exchange(request, limit, interrupted);
  }

  /** Gives it up when it takes too long, or when somebody asked to stop. */
  void look() {
    if (interrupted.getAsBoolean()) {
      giveUp(Answer.failed(took(), Answer.Why.GIVEN_UP, "given up, as a signal asked to stop", ""));
    } else if (took().compareTo(limit) > 0) {
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
    }
  }

  private void giveUp(Answer why) {
    if (cut.isEmpty()) {
      cut = Optional.of(why);
      request.abort();
    }
  }

  /** The first bytes of an answer came. */
  void answerBegins() {
    begun = true;
  }

  boolean isAnswered() {
    return begun;
  }

  /** What to say instead of an answer, when it was given up. */
  Optional<Answer> cut() {
    return cut;
  }

  /** Time since it was begun. */
  Duration took() {
    return Duration.ofNanos(System.nanoTime() - start);
  }
}
