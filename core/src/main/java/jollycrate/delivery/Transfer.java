package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import jollycrate.file.Sizes;
import jollycrate.foresee.Finding;
import jollycrate.host.Content;
import jollycrate.step.StepList;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** What goes over the line to another machine: foreseen, and told of while it goes. */
record Transfer(Site site, Progress progress) {
  /** What is less is there before anybody wonders. */
  private static final long LEAST_TOLD = 1 << 20;

  private static final long MILLIS = 1000;

  /** How much has to be sent, and about how long that takes; nothing when it is little. */
  List<Finding> foresee(StepList steps) {
    if (site.host().here()) {
      return List.of();
    }
    long all = steps.contents().values().stream().mapToLong(Content::size).sum();
    if (all < LEAST_TOLD) {
      return List.of();
    }
    long sent = 0;
    for (Map.Entry<Path, Content> put : steps.contents().entrySet()) {
      sent += site.files().onTheWay(put.getKey(), put.getValue());
    }
    boolean whole = sent == all;
    String of = whole ? "" : " of " + Sizes.told(all);
    String rest = whole ? "" : "; the rest is made there from what stands";
    String what = Sizes.told(sent) + of + " to be sent to " + site.host().name();
    return List.of(Finding.note("transfer", what + time(sent) + rest));
  }

  private String time(long bytes) {
    if (bytes < LEAST_TOLD) {
      return "";
    }
    double rate = site.host().sight().rate();
    return String.format(
        Locale.ROOT, ", in about %s at %s/s", seconds(bytes / rate), Sizes.told((long) rate));
  }

  private static String seconds(double seconds) {
    return seconds < 1 ? "a second" : String.format(Locale.ROOT, "%.0f s", seconds);
  }

  /** A file that says how far it is on its way. */
  Content watched(Path file, Content content) {
    if (site.host().here() || content.size() < LEAST_TOLD) {
      return content;
    }
    Instant begin = site.time().now();
    String name = file.getFileName().toString();
    return content.watched(sent -> tell(name, sent, content.size(), begin));
  }

  private void tell(String name, long sent, long all, Instant begin) {
    long millis = Math.max(1, Duration.between(begin, site.time().now()).toMillis());
    double rate = sent * (double) MILLIS / millis;
    progress.waitingFor(
        String.format(
            Locale.ROOT,
            "%s to get there: %s of %s, %s/s, %s left",
            name,
            Sizes.told(sent),
            Sizes.told(all),
            Sizes.told((long) rate),
            seconds((all - sent) / rate)));
  }
}
