package jollycrate.wildfly;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.CryptHash;
import jollycrate.hosting.Delivered;
import jollycrate.hosting.DerivedWar;
import jollycrate.hosting.InnerDescriptor;
import jollycrate.hosting.OrderedListener;
import jollycrate.hosting.Refusals;
import jollycrate.hosting.ToldAtStart;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wanted;

/**
 * What one order needs on a WildFly: the archive itself, which carries where it answers and its
 * data sources; a driver is a module, and a line of the configuration.
 */
final class WildflyPlacement {
  private static final Duration NOTICE = Duration.ofSeconds(2);
  private static final String DRIVERS = "jolly/drivers";

  /** Files that the server writes beside the archive, and takes away again. */
  private static final List<String> TRACES =
      List.of(".deployed", ".isdeploying", ".isundeploying", ".dodeploy", ".pending");

  private static final List<String> MARKS = List.of(".failed", ".undeployed");

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Delivered delivered;
  private final DerivedWar war;
  private final Set<String> drivers = new HashSet<>();
  private final List<Piece> fragments = new ArrayList<>();
  private final Refusals refusals = new Refusals();
  private final Map<String, String> hidden = new HashMap<>();

  WildflyPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.delivered = new Delivered(stock, order);
    this.war = new DerivedWar(order.artifact());
  }

  Wanted wanted() {
    refusals.refuse(ToldAtStart.contradictions(WildflyKind.CALLED, server));
    ArchivesIn archives = Instance.archives(server);
    String path =
        application.context().path().orElseGet(() -> archives.pathOf(order.artifact().file()));
    JbossWeb descriptor =
        new JbossWeb(InnerDescriptor.of(war, JbossWeb.PATH, JbossWeb.EMPTY, refusals));
    descriptor.answersAt(path);
    String listener = listener(descriptor);
    dataSources(descriptor);
    application.context().entries().forEach(entry -> entry(descriptor, entry));
    hidden.putAll(IdentityXml.files(server).put(stock, order, new CryptHash(), delivered));
    war.put(JbossWeb.PATH, descriptor.text().text());
    Path archive = archives.of(application.name());
    delivered.live(archive, war.content());
    ArchivesIn.refuseFolder(order, server, refusals);
    Placement placement =
        new Placement(
            delivered.release(),
            Placement.Route.at(listener, path, server.ports()),
            archive,
            new Placement.Made(
                archives.beside(archive, TRACES), List.of(), archives.beside(archive, MARKS)),
            new Placement.Timing(NOTICE, application.context().startsWithin()));
    return new Wanted(placement, delivered.pieces(), Swap.LIVE, refusals.all(), hidden)
        .after(fragments);
  }

  private String listener(JbossWeb descriptor) {
    String listener = OrderedListener.of(server, order, refusals);
    if (listener.equals(Placement.ADMIN)) {
      descriptor.listensAt(Placement.ADMIN, Placement.ADMIN);
    } else if (!listener.equals(Placement.MAIN)) {
      fragment(Configuration.hostKey(listener), Configuration.host(listener));
      descriptor.listensAt(NewConfiguration.MAIN_SERVER, listener);
    }
    return listener;
  }

  private void fragment(String key, String text) {
    fragments.add(
        new Piece.Fragment(Configuration.file(server), key, text, Part.SUPPORT, PickUp.RESTART));
  }

  private void dataSources(JbossWeb descriptor) {
    if (application.dataSources().isEmpty()) {
      return;
    }
    ConnectionsXml connections = new ConnectionsXml(application.name());
    for (DataSource source : application.dataSources()) {
      String password = order.databasePasswords().getOrDefault(source.jndiName(), "");
      for (String value : List.of(source.url(), source.user(), password)) {
        if (!ConnectionsXml.keeps(value)) {
          refusals.refuse(
              source.jndiName(),
              "a WildFly takes blanks away at both ends of a URL, user or password, and reads what"
                  + " stands in ${...}, so one of these would not reach the database unchanged",
              "Write it without, or give that user of the database another password");
        }
      }
      connections.add(source, driver(source), password);
      descriptor.dataSource(source.jndiName(), connections.boundAt(source));
    }
    war.put(ConnectionsXml.PATH, connections.text());
  }

  /** The name under which its driver is known there. */
  private String driver(DataSource source) {
    Content archive = Content.of(source.driver());
    String name =
        Delivered.baseName(source.driver()).replaceAll("[^A-Za-z0-9-]", "_")
            + "-"
            + Digests.brief(archive.digest());
    if (!drivers.add(name)) {
      return name;
    }
    Path folder = server.folder().resolve("modules");
    for (Path part : Path.of(DRIVERS, name, "main")) {
      folder = folder.resolve(part);
      delivered.folder(folder);
    }
    String module = DRIVERS.replace('/', '.') + "." + name;
    String jar = name + ".jar";
    delivered.open(folder.resolve(jar), archive);
    delivered.open(folder.resolve("module.xml"), Content.of(moduleXml(module, jar)));
    fragment(
        Configuration.driverKey(name),
        Configuration.driver(name, module, Delivered.driverClass(source)));
    return name;
  }

  private static String moduleXml(String module, String jar) {
    return """
        <module xmlns="urn:jboss:module:1.9" name="%s">
          <resources><resource-root path="%s"/></resources>
          <dependencies><module name="java.se"/><module name="jdk.unsupported"/></dependencies>
        </module>
        """
        .formatted(module, jar);
  }

  private void entry(JbossWeb descriptor, EnvEntry entry) {
    String value = delivered.value(entry);
    if (value.isEmpty()) {
      refusals.refuse(
          entry.name(), "a WildFly binds no empty value", "Give it a value, or leave it out");
    }
    if (entry.secret().isPresent()) {
      hidden.put(value, Secrets.HIDDEN);
    }
    descriptor.entry(entry.name(), delivered.type(entry), value);
  }
}
