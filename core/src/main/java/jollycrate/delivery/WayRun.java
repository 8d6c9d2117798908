package jollycrate.delivery;

import java.net.URI;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.server.Cause;

/**
 * Asks through the proxy by which people reach a server what the server itself answered rightly.
 * What comes proves nothing of the server, but what differs is said: nothing comes through, the
 * proxy leads elsewhere, or it answers from its cache.
 */
final class WayRun {
  private static final int NOT_FOUND = 404;
  private static final int SERVER_ERROR = 500;

  private final Checker way;
  private final URI base;

  /**
   * @param base where people open the application
   */
  WayRun(Checker way, URI base) {
    this.way = way;
    this.base = base;
  }

  /** What one request through the proxy showed. */
  private enum Seen {
    SAME,
    STALE,
    OTHER,
    NOTHING
  }

  /**
   * Asks.
   *
   * @param passed checks that the server itself passed
   * @param itself how the server answers at its root
   */
  CheckResult ask(List<Check> passed, CheckResult itself) {
    List<Check> plain = passed.stream().filter(Check::isPlain).toList();
    return plain.isEmpty() ? root(itself) : all(plain);
  }

  private String name() {
    return "through " + base.getScheme() + "://" + base.getAuthority();
  }

  private CheckResult root(CheckResult itself) {
    CheckResult through = way.anyAnswer(name());
    boolean same = through.status() == itself.status() && through.status() > 0;
    return same || !isBroken(through)
        ? through.named(
            same
                ? name()
                : name() + " (another server or release answers: " + through.status() + ")",
            List.of(),
            Optional.empty())
        : broken(through);
  }

  private CheckResult all(List<Check> plain) {
    Set<String> stale = new LinkedHashSet<>();
    Set<String> other = new LinkedHashSet<>();
    List<CheckResult> results = new ArrayList<>();
    List<CheckResult> broken = new ArrayList<>();
    for (Check check : plain) {
      CheckResult through = way.run(check);
      results.add(through);
      switch (seen(check, through)) {
        case SAME -> {}
        case STALE -> stale.add(check.name());
        case OTHER -> other.add(check.name());
        case NOTHING -> {
          other.add(check.name());
          broken.add(through);
        }
      }
    }
    return broken.size() == plain.size()
        ? broken(broken.get(0))
        : results.get(0).named(name() + differing(stale, other), List.of(), Optional.empty());
  }

  private Seen seen(Check check, CheckResult through) {
    if (through.passed()) {
      return Seen.SAME;
    }
    if (isBroken(through) && through.status() != NOT_FOUND) {
      return Seen.NOTHING;
    }
    if (way.runFresh(check).passed()) {
      return Seen.STALE;
    }
    return isBroken(through) ? Seen.NOTHING : Seen.OTHER;
  }

  /** Whether people do not get to the application at all. */
  private static boolean isBroken(CheckResult through) {
    return through.status() == 0
        || through.status() == NOT_FOUND
        || through.status() >= SERVER_ERROR;
  }

  private static String differing(Set<String> stale, Set<String> other) {
    List<String> told = new ArrayList<>();
    if (!stale.isEmpty()) {
      told.add("a stale copy from its cache: " + brief(stale));
    }
    if (!other.isEmpty()) {
      told.add("another server or release answers: " + brief(other));
    }
    return told.isEmpty() ? "" : " (" + String.join("; ", told) + ")";
  }

  private static String brief(Set<String> names) {
    int more = names.size() - 1;
    return "'" + names.iterator().next() + "'" + (more == 0 ? "" : " and " + more + " more");
  }

  private CheckResult broken(CheckResult through) {
    List<CheckResult.Miss> misses =
        List.of(
            new CheckResult.Miss(
                "answer",
                "what the server itself answers",
                through.status() == 0
                    ? through.misses().get(0).got()
                    : String.valueOf(through.status())));
    String at = base.getScheme() + "://" + base.getAuthority();
    Optional<Cause> cause =
        through.status() == NOT_FOUND
            ? Optional.of(
                Cause.of(
                    "the proxy at " + at + " answers, but does not pass this path on to the server",
                    "Look at the routes in its configuration"))
            : through.status() >= SERVER_ERROR
                ? Optional.of(
                    Cause.of(
                        "what answers at "
                            + at
                            + " ("
                            + through.status()
                            + ") does not reach the server, which itself answers as expected",
                        "Look into the proxy's error log, and at where it sends requests"))
                : through.cause();
    return through.named(name(), misses, cause);
  }
}
