package jollycrate.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import jollycrate.app.Check;
import org.HdrHistogram.ConcurrentHistogram;
import org.HdrHistogram.Histogram;
import org.HdrHistogram.HistogramIterationValue;

/**
 * Makes a request again and again, and measures. The first ones warm the server up and are not
 * counted. When nothing comes back once, it ends: nothing is waited for again.
 */
final class Timing {
  private static final int DIGITS = 3;
  private static final int BARS = 24;
  private static final int WARM_UP_PART = 10;
  private static final double MICROS_IN_MILLI = 1000;

  private final Check.Load load;
  private final Requester requester;
  private final Requester.Request request;
  private final Expectations expected;
  private final Histogram took = new ConcurrentHistogram(TimeUnit.MINUTES.toMicros(10), DIGITS);
  private final AtomicInteger errors = new AtomicInteger();
  private final AtomicReference<String> error = new AtomicReference<>("");
  private volatile boolean silent;

  Timing(Check.Load load, Requester requester, Requester.Request request, Expectations expected) {
    this.load = load;
    this.requester = requester;
    this.request = request;
    this.expected = expected;
  }

  /** The result of a check that passed once, with its times and what is too long of them. */
  CheckResult of(CheckResult passed) {
    Times times = measure();
    List<CheckResult.Miss> misses = new ArrayList<>();
    if (times.errors() > 0) {
      String count = times.errors() + " of " + times.requests();
      misses.add(
          new CheckResult.Miss(
              "answers", "right each time", count + " wrong, the first: " + times.error()));
    }
    load.most()
        .forEach(
            (name, most) -> {
              if (times.exceeds(name, most)) {
                String got = Math.round(times.percentiles().of(name)) + " ms";
                misses.add(new CheckResult.Miss(name, "at most " + most.toMillis() + " ms", got));
              }
            });
    return passed.measured(times, misses, Verdict.slow(request.url(), times.errors() > 0));
  }

  private Times measure() {
    int warmUp = Math.max(load.atOnce(), load.requests() / WARM_UP_PART);
    round(warmUp, false);
    long begin = System.nanoTime();
    round(load.requests(), true);
    double seconds = (System.nanoTime() - begin) / (double) TimeUnit.SECONDS.toNanos(1);
    int counted = (int) took.getTotalCount();
    return new Times(
        counted,
        load.atOnce(),
        errors.get(),
        error.get(),
        counted / seconds,
        new Times.Percentiles(at(50), at(90), at(95), at(99), at(100)),
        bars());
  }

  private void round(int requests, boolean counts) {
    AtomicInteger left = new AtomicInteger(requests);
    try (AtOnce threads = new AtOnce(load.atOnce(), "timing")) {
      IntStream.range(0, load.atOnce())
          .mapToObj(i -> threads.begin(() -> share(left, counts)))
          .toList()
          .forEach(Supplier::get);
    }
  }

  /** Asks as long as something is left; how often that was. */
  private int share(AtomicInteger left, boolean counts) {
    int asked = 0;
    while (left.getAndDecrement() > 0 && !silent) {
      once(counts);
      asked++;
    }
    return asked;
  }

  private void once(boolean counts) {
    Answer answer = requester.send(request, Checker.LIMIT);
    silent |= !answer.came();
    if (counts || silent) {
      took.recordValue(Math.min(answer.took().toNanos() / 1000, took.getHighestTrackableValue()));
      wrong(answer)
          .ifPresent(
              what -> {
                errors.incrementAndGet();
                error.compareAndSet("", what);
              });
    }
  }

  private Optional<String> wrong(Answer answer) {
    List<CheckResult.Miss> misses =
        answer.came() ? expected.misses(request.url(), answer) : List.of(Verdict.none(answer));
    return misses.stream().findFirst().map(miss -> miss.what() + " " + miss.got());
  }

  private double at(double percentile) {
    return took.getValueAtPercentile(percentile) / MICROS_IN_MILLI;
  }

  /** Each a fixed factor wider than the one before, as times of answers are spread. */
  private List<Times.Bar> bars() {
    List<Times.Bar> bars = new ArrayList<>();
    double least = Math.max(1, took.getMinNonZeroValue());
    double factor = Math.pow(Math.max(2, took.getMaxValue() / least), 1.0 / BARS);
    long[] counts = new long[BARS];
    for (HistogramIterationValue value : took.recordedValues()) {
      double place = Math.log(value.getValueIteratedTo() / least) / Math.log(factor);
      counts[(int) Math.max(0, Math.min(BARS - 1, place))] += value.getCountAtValueIteratedTo();
    }
    for (int i = 0; i < BARS; i++) {
      bars.add(new Times.Bar(least * Math.pow(factor, i + 1) / MICROS_IN_MILLI, counts[i]));
    }
    return bars;
  }
}
