package jollycrate.jetty;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import jollycrate.hosting.HostedLogs;
import jollycrate.server.SelfDescription;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.SelfDescription.Told;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** What the files of a Jetty that somebody set up say of it. */
final class JettySelf {
  private final Server server;
  private final JettyBase base;
  private final List<Told> told = new ArrayList<>();
  private final List<Doubt> doubts = new ArrayList<>();

  JettySelf(Stock stock) {
    this.server = stock.server();
    this.base = JettyBase.of(stock);
  }

  SelfDescription description() {
    String bound = base.address().isEmpty() ? "every address" : base.address();
    told.add(
        new Told(
            "HTTP",
            base.http() + " on " + bound,
            base.property("jetty.http.port").map(JettyBase.Told::where).orElse("")));
    String looked =
        base.interval() > 0
            ? "looked at every " + base.interval() + " s"
            : "looked at when it starts only";
    String folders = base.folders().stream().map(server::shown).collect(Collectors.joining(", "));
    told.add(new Told("serves", folders + ", " + looked, ""));
    List<Environment> environments = base.environments();
    told.add(
        new Told(
            "editions",
            environments.stream().map(Environment::name).collect(Collectors.joining(", ")),
            ""));
    if (environments.isEmpty()) {
      doubts.add(
          new Doubt(
              "modules",
              "none of them deploys web applications, so nothing can be delivered",
              "start.d",
              "Write --modules=ee10-deploy,ee10-plus into start.d/ee10.ini"));
    }
    if (base.interval() == 0) {
      doubts.add(
          new Doubt(
              "jetty.deploy.scanInterval",
              "with 0, as it is by itself, each delivery restarts the server, and with it what else"
                  + " runs there",
              "start.d",
              "Write jetty.deploy.scanInterval=1 into start.d"));
    } else if (base.startsBeside()) {
      doubts.add(
          new Doubt(
              "jetty.deploy.atomicRedeploy",
              "it starts a new release before it stops the old one; so that two do not open one"
                  + " database, a delivery with data sources restarts the server",
              "start.d",
              "Write jetty.deploy.atomicRedeploy=false into start.d"));
    }
    return new SelfDescription(
        OptionalInt.of(base.http()),
        base.address(),
        new SelfDescription.Way(HostedLogs.USUAL.toString(), List.of()),
        List.copyOf(told),
        List.copyOf(doubts));
  }
}
