package jollycrate.wildfly;

import java.util.ArrayList;
import java.util.List;
import jollycrate.server.Running;
import jollycrate.server.SelfDescription;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.SelfDescription.Told;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;

/** What a WildFly that somebody set up says of itself. */
final class WildflySelf {
  /** Beside what the server writes there itself. */
  private static final String LOG = "log/console.log";

  private static final List<String> SAID_BY_ITS_DESCRIPTION =
      List.of("jboss.bind.address", "jboss.http.port");

  private final Server server;
  private final Standalone configuration;
  private final GivenArguments arguments;
  private final List<Told> told = new ArrayList<>();
  private final List<Doubt> doubts = new ArrayList<>();

  WildflySelf(Stock stock) {
    this.server = stock.server();
    this.configuration = Standalone.of(stock);
    this.arguments =
        new GivenArguments(stock.process().found().map(Running::command).orElse(List.of()));
  }

  SelfDescription description() {
    String port = configuration.http().isPresent() ? "" + configuration.http().getAsInt() : "?";
    String bound = configuration.address().isEmpty() ? "?" : configuration.address();
    told.add(new Told("HTTP", port + " on " + bound, configuration.where()));
    configuration
        .others()
        .forEach(open -> told.add(new Told(open.what(), open.bound(), open.where())));
    int interval = configuration.interval();
    String looked =
        interval > 0
            ? "looked at every "
                + (interval % 1000 == 0 ? interval / 1000 + " s" : interval + " ms")
            : "looked at when it starts only";
    told.add(
        new Told("serves", server.shown(configuration.archives().folder()) + ", " + looked, ""));
    configuration
        .realm()
        .ifPresent(realm -> told.add(new Told("users", server.shown(realm.users()), "")));
    configuration.unseen().map(WildflySelf::doubt).ifPresent(doubts::add);
    arguments.otherConfiguration().ifPresent(this::otherConfiguration);
    arguments.secret().forEach(this::secret);
    configuration.management().ifPresent(this::openManagement);
    return new SelfDescription(
        configuration.http(),
        configuration.address(),
        new SelfDescription.Way(
            LOG, List.of(), arguments.memory(), arguments.further(SAID_BY_ITS_DESCRIPTION)),
        List.copyOf(told),
        List.copyOf(doubts));
  }

  private static Doubt doubt(Wanted.Refused refused) {
    return new Doubt(refused.subject(), refused.message(), "", refused.fix());
  }

  private void otherConfiguration(String file) {
    doubts.add(
        new Doubt(
            file,
            "its process reads this configuration, and only standalone.xml is read here",
            "its arguments",
            "Make its standalone.xml say the same, and start it without"));
  }

  private void secret(String property) {
    doubts.add(
        new Doubt(
            property,
            "its process was given this property, which is not written down as it holds a secret",
            "its arguments",
            "Hand it over as a variable: 'variables' in servers.toml"));
  }

  private void openManagement(String address) {
    doubts.add(
        new Doubt(
            "management",
            "its management interface is open to whoever reaches " + address,
            server.shown(Configuration.file(server)),
            "Bind the interface 'management' to 127.0.0.1"));
  }
}
