package jollycrate.cli.output;

import java.util.List;
import java.util.Locale;
import jollycrate.check.Times;

/** Times of a request that was made again and again, with how they are spread. */
final class TimesRows {
  private static final int TEN = 10;

  private TimesRows() {}

  static List<String> of(Times times, Style style) {
    return List.of(
        count(times),
        String.join("  ", percentiles(times)),
        style.place(picture(times.bars())) + "  " + range(times));
  }

  static String count(Times times) {
    return Amounts.count(times.requests(), "request", "requests")
        + ", "
        + times.atOnce()
        + " at once: "
        + Math.round(times.perSecond())
        + " a second";
  }

  static List<String> percentiles(Times times) {
    Times.Percentiles at = times.percentiles();
    return List.of(
        "p50 " + shown(at.p50()),
        "p90 " + shown(at.p90()),
        "p95 " + shown(at.p95()),
        "p99 " + shown(at.p99()),
        "longest " + shown(at.longest()));
  }

  /** Of what is longer than nothing something is seen. */
  static String picture(List<Times.Bar> bars) {
    long most = bars.stream().mapToLong(Times.Bar::count).max().orElse(1);
    StringBuilder picture = new StringBuilder();
    bars.forEach(bar -> picture.append(Blocks.column(bar.count(), most)));
    return picture.toString().stripTrailing();
  }

  private static String range(Times times) {
    List<Times.Bar> bars = times.bars().stream().filter(bar -> bar.count() > 0).toList();
    return bars.isEmpty()
        ? ""
        : "from " + shown(bars.get(0).upTo()) + " to " + shown(times.percentiles().longest());
  }

  static String shown(double millis) {
    return millis < TEN
        ? String.format(Locale.ROOT, "%.1f ms", millis)
        : Amounts.time(Math.round(millis));
  }
}
