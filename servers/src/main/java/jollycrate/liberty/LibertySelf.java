package jollycrate.liberty;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.HostedLogs;
import jollycrate.server.SelfDescription;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.SelfDescription.Told;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** What an Open Liberty that somebody set up says of itself. */
final class LibertySelf {
  private final Server server;
  private final LibertyBase base;
  private final LibertyRules rules;

  LibertySelf(Stock stock) {
    this.server = stock.server();
    this.base = LibertyBase.of(stock);
    this.rules = LibertyRules.of(stock);
  }

  SelfDescription description() {
    String port = base.http().isPresent() ? "" + base.http().getAsInt() : "?";
    String bound = base.address().isEmpty() ? "?" : base.address();
    List<Told> told = new ArrayList<>();
    told.add(new Told("HTTP", port + " on " + bound, base.where()));
    if (base.https().isPresent()) {
      String secure = base.https().getAsInt() + " on " + bound;
      told.add(new Told("https", secure + ", with a feature that has it", base.where()));
    }
    told.add(
        new Told(
            "serves",
            server.shown(base.dropins())
                + (base.looks() ? ", looked at while it runs" : ", looked at when it starts only"),
            ""));
    told.add(new Told("features", String.join(", ", base.features()), ""));
    List<Doubt> doubts =
        Stream.of(rules.serves(), rules.printed())
            .flatMap(Optional::stream)
            .map(one -> new Doubt(one.subject(), one.message(), "", one.fix()))
            .toList();
    return new SelfDescription(
        base.http(),
        base.address(),
        new SelfDescription.Way(HostedLogs.USUAL.toString(), List.of()),
        List.copyOf(told),
        doubts);
  }
}
