package jollycrate.control;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.Expected;
import jollycrate.server.LogPlace;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.watch.Interrupts;
import jollycrate.watch.LogSlice;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Starts a server by hand and waits until it answers on its port. */
public final class ServerStart {
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;

  public ServerStart(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
  }

  /**
   * Starts it.
   *
   * @return why applications did not come up although the server did
   * @throws ServerStartException when the server itself does not start
   */
  public List<Cause> start(Stock stock) {
    ServerProcess.cannotStart(site.server())
        .ifPresent(
            cause -> {
              throw new ServerStartException(cause);
            });
    site.server().ports().all().forEach(port -> stock.stranger(port).ifPresent(ServerStart::taken));
    Waits.From from = Waits.From.now(site, true);
    new ServerProcess(site).start(stock);
    if (site.traits().hosts()) {
      awaitPort(from.mark());
    }
    List<Cause> failed = new ArrayList<>();
    for (Standing.Owner owner : stock.standing().applications()) {
      new Waits(site, progress, interrupts)
          .until(stock, site.addressed(owner.placement()), Expected.UP, from)
          .map(cause -> cause.of(owner.name()))
          .ifPresent(failed::add);
    }
    if (!site.traits().hosts() && !failed.isEmpty()) {
      throw new ServerStartException(failed.get(0));
    }
    return List.copyOf(failed);
  }

  private void awaitPort(long mark) {
    int port = site.server().ports().http();
    Instant until = site.time().now().plus(Waits.SERVER_STARTS_WITHIN);
    while (!listens(port)) {
      boolean late = site.time().now().isAfter(until);
      if (late || site.stockTaker().presence().isStopped()) {
        throw new ServerStartException(cause(mark, late));
      }
      interrupts.obey();
      progress.waitingFor("port " + port + " to open");
      site.time().pause(LOOK_AGAIN);
    }
  }

  private boolean listens(int port) {
    return site.stockTaker()
        .presence()
        .found()
        .map(running -> site.host().processes().ports(List.of(running.identity())))
        .filter(ports -> ports.map(open -> open.contains(port)).orElse(false))
        .isPresent();
  }

  private static void taken(Listening other) {
    throw new ServerStartException(
        Cause.of(
            "port "
                + other.port()
                + " is taken by "
                + other.program()
                + " (process "
                + other.pid()
                + ")",
            "End that program, or give the server another port in servers.toml"));
  }

  private Cause cause(long mark, boolean late) {
    Waits waits = new Waits(site, progress, interrupts);
    LogSlice log = LogSlice.since(site, new LogPlace(site.log(), mark));
    String what =
        late
            ? "its port did not open within " + Waits.SERVER_STARTS_WITHIN.toSeconds() + " s"
            : "its process ended while starting";
    Cause cause = Cause.of(what, "Read " + site.log());
    return site.kind()
        .logs()
        .explain(List.of(), log.text())
        .map(found -> log.located(site, found).with(waits.othersOnItsPorts()))
        .orElse(cause);
  }
}
