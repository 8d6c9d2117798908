package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import jollycrate.server.Cause;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/**
 * Starts one application anew on a server that goes on running: its switch gets a fresh time, and
 * nothing else changes.
 *
 * @param owner the application as it stands
 */
record AppRestart(Site site, Waits waits, Standing.Owner owner) {

  /** Why it cannot be done. */
  Optional<Cause> hindrance(Stock stock) {
    Path switchPath = owner.placement().switchPath();
    String alone = "'jolly server restart " + site.server().name() + "' starts it anew";
    Optional<Cause> atAll = byItself(site, owner, stock, alone);
    return atAll.isPresent() || stock.at(switchPath).isFile()
        ? atAll
        : Optional.of(
            Cause.of(
                site.server().shown(switchPath) + " is gone, so the application does not stand",
                "Deliver it again"));
  }

  /**
   * Why an application cannot be started or stopped while its server goes on.
   *
   * @param otherwise what to do instead
   */
  static Optional<Cause> byItself(Site site, Standing.Owner owner, Stock stock, String otherwise) {
    String server = site.server().name();
    if (!site.traits().hosts()) {
      return Optional.of(Cause.of("a service is one program", otherwise));
    }
    if (stock.process().found().isEmpty()) {
      return Optional.of(
          Cause.of(
              "whether " + server + " runs is not known, or it does not",
              "'jolly server start " + server + "' starts it with what stands there"));
    }
    return owner.swap() == Swap.LIVE
        ? Optional.empty()
        : Optional.of(
            Cause.of(server + " looks at its applications only when it starts", otherwise));
  }

  /**
   * How it went.
   *
   * @param cause why it did not come up
   */
  record Restarted(Duration silence, Optional<Cause> cause) {}

  /** Does it; back when it is up, or is not to be. */
  Restarted run(Stock stock) {
    Placement placement = site.addressed(owner.placement());
    Waits.From from = Waits.From.now(site, false);
    Instant begin = site.time().now();
    site.files().touch(placement.switchPath());
    Optional<Cause> cause = waits.until(stock, placement, Expected.UP, from);
    return new Restarted(Duration.between(begin, site.time().now()), cause);
  }
}
