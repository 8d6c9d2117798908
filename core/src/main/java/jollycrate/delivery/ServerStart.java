package jollycrate.delivery;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.Running;
import jollycrate.server.Stock;

/** Starts a server by hand and waits until it answers on its port. */
final class ServerStart {
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;

  ServerStart(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
  }

  void start(Stock stock) {
    int port = site.server().http();
    stock.listening().values().forEach(ServerStart::taken);
    long mark = site.logEnd();
    new ServerProcess(site).start(stock);
    Instant until = site.time().now().plus(Waits.SERVER_STARTS_WITHIN);
    while (!listens(port)) {
      boolean late = site.time().now().isAfter(until);
      if (late || site.stockTaker().running().isEmpty()) {
        throw new ServerStartException(cause(mark, late));
      }
      interrupts.obey();
      progress.waitingFor("port " + port + " to open");
      site.time().pause(LOOK_AGAIN);
    }
  }

  private boolean listens(int port) {
    Optional<Running> running = site.stockTaker().running();
    return site.host()
        .processes()
        .listening(port)
        .filter(found -> running.filter(r -> r.identity().pid() == found.pid()).isPresent())
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
    String what =
        late
            ? "its port did not open within " + Waits.SERVER_STARTS_WITHIN.toSeconds() + " s"
            : "its process ended while starting";
    Cause cause = Cause.of(what, "Read " + site.log());
    return site.kind()
        .explain(List.of(), waits.logSince(mark))
        .map(found -> waits.located(found, mark).with(waits.othersOnItsPorts()))
        .orElse(cause);
  }
}
