package jollycrate.liberty;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Pattern;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.artifact.Artifact;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.hosting.Delivered;
import jollycrate.hosting.DerivedWar;
import jollycrate.hosting.OrderedListener;
import jollycrate.hosting.PersistenceUnits;
import jollycrate.hosting.Refusals;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Unfolded;
import jollycrate.server.Wanted;

/**
 * What one order needs on an Open Liberty: files under content-named paths, and one piece of XML.
 */
final class LibertyPlacement {
  private static final Duration NOTICE = Duration.ofSeconds(3);

  /** What the server reads as a variable, or as an encoded password. */
  private static final Pattern READ_OTHERWISE = Pattern.compile(".*\\$\\{.*|\\{\\w+\\}.*");

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Delivered delivered;
  private final LibertyBase base;
  private final LibertyRules rules;
  private final ApplicationXml xml;
  private final Map<String, String> hidden = new HashMap<>();
  private final Refusals refusals = new Refusals();

  LibertyPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.delivered = new Delivered(stock, order);
    this.base = LibertyBase.of(stock);
    this.rules = LibertyRules.of(stock);
    this.xml = new ApplicationXml(application.name());
  }

  Wanted wanted() {
    refusals.refuse(rules.contradictions());
    if (!base.isOurs()) {
      delivered.folder(base.dropins().getParent());
      delivered.folder(base.dropins());
    }
    String path =
        application
            .context()
            .path()
            .orElseGet(() -> "/" + Delivered.baseName(order.artifact().file()));
    DerivedWar war = new DerivedWar(order.artifact());
    if (order.unfolded().isEmpty()) {
      new PersistenceUnits(order, war, Artifact.ENVIRONMENT::concat).name(refusals);
    }
    Path archive = war.isAsItWas() ? delivered.archive() : delivered.archive(war.content());
    String listener = OrderedListener.of(server, order, refusals);
    if (!listener.equals(Placement.MAIN) && !listener.equals(Placement.ADMIN)) {
      xml.host(listener, server.ports());
    }
    xml.answersAt(listener);
    dataSources();
    application.context().entries().forEach(this::entry);
    xml.roles(application.access().roles());
    users();
    Path piece = base.dropins().resolve(application.name() + ".xml");
    delivered.live(piece, Content.of(xml.text(path, archive, stamp())));
    Placement placement =
        new Placement(
            delivered.release(),
            Placement.Route.at(listener, path, server.ports()),
            piece,
            Placement.Made.NOTHING,
            new Placement.Timing(NOTICE, application.context().startsWithin()));
    Swap swap = base.looks() ? Swap.LIVE : Swap.RESTART;
    return new Wanted(placement, delivered.pieces(), swap, refusals.all(), hidden);
  }

  private void users() {
    if (order.userPasswords().isEmpty()) {
      return;
    }
    rules.lacks("users", "appSecurity", "5.0").ifPresent(one -> refusals.refuse(List.of(one)));
    Optional<String> registry = base.registry();
    if (registry.isEmpty()) {
      refusals.refuse(
          "users",
          "this server keeps its users elsewhere than in one <basicRegistry> with an id",
          "Take [users] out for this server, and add them where it keeps its own");
    }
    hidden.putAll(
        UserXml.files(base, registry.orElse(UserXml.REGISTRY))
            .put(stock, order, new LibertyHash(), delivered));
  }

  /** Of its users, and of its content where that changes in its place. */
  private String stamp() {
    StringBuilder told = new StringBuilder(order.unfolded().map(Unfolded::stamp).orElse(""));
    delivered.pieces().stream()
        .filter(piece -> piece.path().startsWith(base.dropins()))
        .forEach(piece -> told.append(piece.digest()));
    return Digests.brief(Digests.of(told.toString().getBytes(StandardCharsets.US_ASCII)));
  }

  private void dataSources() {
    String before = application.name() + "~data-";
    Path folder = base.dropins();
    if (application.dataSources().isEmpty()) {
      return;
    }
    rules.lacks("data sources", "jdbc", "4.3").ifPresent(one -> refusals.refuse(List.of(one)));
    DataXml data = new DataXml(application.name(), delivered.drivers());
    for (DataSource source : application.dataSources()) {
      String name = source.jndiName();
      String password = order.databasePasswords().getOrDefault(name, "");
      declared(
          name,
          names(order.artifact().web().dataSources(), Artifact.Declared::name),
          "resource-ref");
      List.of(source.url(), source.user(), password).forEach(value -> kept(name, value));
      data.add(source, Delivered.driverClass(source), password);
    }
    application
        .dataSources()
        .forEach(source -> xml.dataSource(source.jndiName(), data.boundAt(source)));
    hidden.putAll(LibertySecrets.in(data.text().getBytes(StandardCharsets.UTF_8)));
    delivered.secret(folder.resolve(before + data.stamp() + ".xml"), Content.of(data.text()));
  }

  private static <T> List<String> names(List<T> declared, Function<T, String> name) {
    return declared.stream().map(name).toList();
  }

  private void entry(EnvEntry entry) {
    String value = delivered.value(entry);
    if (entry.secret().isPresent()) {
      hidden.put(value, Secrets.HIDDEN);
    }
    declared(
        entry.name(),
        names(order.artifact().web().envEntries(), Artifact.DeclaredEntry::name),
        "env-entry");
    kept(entry.name(), value);
    xml.entry(entry.name(), value, entry.secret().isPresent());
  }

  private void declared(String name, List<String> names, String element) {
    if (!names.contains(name)) {
      refusals.refuse(
          name,
          "an Open Liberty binds only what the application declares, and this name it does not",
          "Declare it: a <" + element + "> in WEB-INF/web.xml, or @Resource at a field");
    }
  }

  private void kept(String name, String value) {
    if (READ_OTHERWISE.matcher(value).matches()) {
      refusals.refuse(
          name,
          "an Open Liberty reads ${...} as a variable, and {...} before a password as a code, so"
              + " the value would not arrive unchanged",
          "Take another value");
    }
  }
}
