package jollycrate.jetty;

import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Application;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Content;
import jollycrate.hosting.Delivered;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.OrderedListener;
import jollycrate.hosting.PasswordHash;
import jollycrate.hosting.Refusals;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Unfolded;
import jollycrate.server.Wanted;

/** What one order needs on a Jetty: files under content-named paths, and a descriptor. */
final class JettyPlacement {
  private static final String OURS = "jollycrate/insidejetty/Connections.class";
  private static final String POOL = "com/zaxxer/hikari/HikariDataSource.class";

  /** A change is noticed by the second look that finds it the same. */
  private static final int LOOKS = 3;

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final JettyBase base;
  private final Delivered delivered;
  private final Map<String, String> hidden = new HashMap<>();
  private final Refusals refusals = new Refusals();

  JettyPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.base = JettyBase.of(stock);
    this.delivered = new Delivered(stock, order);
  }

  Wanted wanted() {
    refusals.refuse(base.contradictions());
    Environment environment = environment();
    String listener = OrderedListener.of(server, order, refusals);
    String path =
        application
            .context()
            .path()
            .orElseGet(() -> JettyNames.pathOf(Delivered.baseName(order.artifact().file())));
    ContextXml descriptor = new ContextXml(environment);
    descriptor.application(path, delivered.archive());
    order.unfolded().map(Unfolded::stamp).ifPresent(descriptor::unfolded);
    virtualHost(listener).ifPresent(descriptor::answersAt);
    archives(descriptor);
    users(descriptor);
    application
        .dataSources()
        .forEach(
            source ->
                descriptor.dataSource(
                    application.name(),
                    source,
                    Delivered.driverClass(source),
                    order.databasePasswords().getOrDefault(source.jndiName(), "")));
    application
        .context()
        .entries()
        .forEach(
            entry ->
                descriptor.entry(
                    entry.name(),
                    delivered.type(entry),
                    delivered.value(entry),
                    entry.secret().isPresent()));
    named(environment);
    Path unpacked = unpackedIn().resolve(application.name() + "-" + descriptor.stamp());
    Path switchPath = folder(environment).resolve(JettyNames.baseName(listener, path) + ".xml");
    byte[] text = descriptor.text(unpacked);
    hidden.putAll(ContextXml.secretsIn(text));
    delivered.folder(unpackedIn());
    delivered.live(switchPath, Content.of(text));
    return new Wanted(
        placement(listener, path, switchPath, unpacked),
        delivered.pieces(),
        swap(),
        refusals.all(),
        hidden);
  }

  private Path unpackedIn() {
    return server.folder().resolve(JettyKind.UNPACKED);
  }

  private Environment environment() {
    ServletNamespace needed = Environment.neededBy(order.artifact());
    List<Environment> serving = base.chosenByItself();
    Optional<Environment> there = Environment.first(serving, needed);
    if (there.isEmpty()) {
      String serves =
          serving.isEmpty() ? "no servlet API" : serving.get(0).namespace().label() + ".servlet";
      refusals.refuse(
          server.name(),
          "it serves applications for "
              + serves
              + ", and this one is for "
              + needed.label()
              + ".servlet",
          "Give it the module of that edition, or 'jolly server new' one that serves both");
    }
    return there.or(() -> Environment.first(Environment.PREFERRED, needed)).orElseThrow();
  }

  private Path folder(Environment environment) {
    return base.isOurs() ? environment.folder(server.folder()) : base.folders().get(0);
  }

  private Optional<String> virtualHost(String listener) {
    if (base.isOurs()) {
      String connector = listener.equals(Placement.ADMIN) ? Placement.ADMIN : Placement.MAIN;
      String host = listener.equals(connector) ? "" : listener;
      return Optional.of(host + "@" + connector);
    }
    if (order.onAdminPort() && server.ports().admin().isPresent()) {
      refusals.refuse(
          server.name(),
          "it has no admin listener that jolly made",
          "Deliver to a server that 'jolly server new' made");
    }
    return application.context().host();
  }

  private void archives(ContextXml descriptor) {
    if (order.userPasswords().isEmpty() && application.dataSources().isEmpty()) {
      return;
    }
    Set<Path> archives = new LinkedHashSet<>();
    archives.add(delivered.shared("inside", ClassPathPlace.of(OURS)));
    archives.add(delivered.shared("inside", ClassPathPlace.of(POOL)));
    archives.addAll(delivered.drivers());
    descriptor.archives(archives);
  }

  private void users(ContextXml descriptor) {
    if (order.userPasswords().isEmpty()) {
      if (base.isOurs()) {
        descriptor.nobody();
      }
      return;
    }
    HashedUsers users =
        HashedUsers.of(
            order,
            UsersProperties.hashesIn(delivered.earlier("users", ".properties")),
            PasswordHash.HASHING);
    hidden.putAll(users.hidden());
    Path file = delivered.secret("users", ".properties", UsersProperties.of(users));
    descriptor.users(application.name(), file);
  }

  private void named(Environment environment) {
    boolean needed =
        !application.dataSources().isEmpty() || !application.context().entries().isEmpty();
    boolean serves = base.environments().contains(environment);
    if (needed && serves && !base.names(environment)) {
      refusals.refuse(
          server.name(),
          "it offers nothing below java:comp/env: its module "
              + environment.name()
              + "-plus is not enabled",
          "Write --modules=" + environment.name() + "-plus into start.d, and restart it");
    }
  }

  /** Two releases at once, as some swap, cannot both have a database that one may open. */
  private Swap swap() {
    boolean together = base.startsBeside() && !application.dataSources().isEmpty();
    return base.interval() > 0 && !together ? Swap.LIVE : Swap.RESTART;
  }

  private Placement placement(String listener, String path, Path switchPath, Path unpacked) {
    return new Placement(
        delivered.release(),
        Placement.Route.at(listener, path, server.ports()),
        switchPath,
        Placement.Made.of(List.of(unpacked)),
        new Placement.Timing(
            Duration.ofSeconds((long) LOOKS * base.interval()),
            application.context().startsWithin()));
  }
}
