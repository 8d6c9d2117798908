package jollycrate.control;

import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.Expected;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.ServerWaits;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Starts a server by hand and waits until it answers on its port. */
public final class ServerStart {
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
    site.supply(progress);
    Waits.From from = Waits.From.now(site, true);
    new ServerProcess(site).start(stock);
    if (site.traits().hosts()) {
      new ServerWaits(site, progress, interrupts)
          .untilListening(List.of(site.server().ports().http()), from)
          .ifPresent(
              cause -> {
                throw new ServerStartException(cause);
              });
    }
    List<Cause> failed = new ArrayList<>();
    for (Standing.Owner owner : stock.standing().running()) {
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

  private static void taken(Listening other) {
    throw new ServerStartException(
        Cause.of(
            "port " + other.port() + " is taken by " + other.who(),
            "End that program, or give the server another port in servers.toml"));
  }
}
