package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import jollycrate.app.Application;
import jollycrate.app.Unit;
import jollycrate.foresee.Scene;
import jollycrate.host.Fact;
import jollycrate.host.Ran;
import jollycrate.server.Order;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.stock.ConnectionTrial;
import jollycrate.stock.JdbcProbe;
import jollycrate.watch.Site;

/** Gathers what rules foresee from. */
record Looking(Site site) {
  private static final Duration COMMAND_LIMIT = Duration.ofSeconds(20);

  Scene scene(Stock stock, Order order, Wanted wanted, Set<String> accepted) {
    return new Scene(
        stock,
        site.traits(),
        order,
        wanted,
        site.kind().occupants(stock),
        new ConnectionTrial(probe(order.application())),
        site.files().free(site.server().folder()),
        site.files()::writable,
        site.host().processes().accountIn(stock.owned()),
        site.server()
            .front()
            .map(front -> site.host().processes().acceptors(front.port()))
            .orElse(Fact.known(Set.of())),
        site.kind()::splicer,
        this::run,
        accepted);
  }

  /** Speaks to databases from where an application works. */
  JdbcProbe probe(Application application) {
    return new JdbcProbe(site.host(), site.server(), worksIn(application));
  }

  /** The folder where the application works: its server's, or a program's own. */
  private Path worksIn(Application application) {
    if (site.traits().hosts()) {
      return site.server().steering().unit().map(this::worksIn).orElseGet(this::worksNow);
    }
    return site.server().folder().resolve(application.program().folder());
  }

  /** A server that somebody started works where it was started; one of ours in its folder. */
  private Path worksNow() {
    return site.stockTaker()
        .presence()
        .found()
        .filter(running -> !running.ours())
        .map(running -> site.host().processes().workingFolder(running.identity()))
        .map(works -> works.orElse(site.server().folder()))
        .orElse(site.server().folder());
  }

  /** A unit works where it says, else at the root of all files (systemd.exec(5)). */
  private Path worksIn(Unit unit) {
    String told =
        run(unit.command("show", "--value", "--property=WorkingDirectory"), "").output().strip();
    return Path.of(told.startsWith("/") ? told : "/");
  }

  private Ran run(List<String> command, String input) {
    return site.host()
        .processes()
        .run(command, site.server().folder(), site.host().environment(), input, COMMAND_LIMIT);
  }
}
