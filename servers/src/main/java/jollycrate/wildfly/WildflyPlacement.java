package jollycrate.wildfly;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.artifact.Artifact;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.CryptHash;
import jollycrate.hosting.Delivered;
import jollycrate.hosting.DerivedWar;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.InnerDescriptor;
import jollycrate.hosting.OrderedListener;
import jollycrate.hosting.PersistenceUnits;
import jollycrate.hosting.Refusals;
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
  private final Standalone configuration;
  private final ArchivesIn archives;
  private final Drivers drivers;
  private final List<Piece> fragments = new ArrayList<>();
  private final Refusals refusals = new Refusals();
  private final Refusals doubts = new Refusals();
  private final Map<String, String> hidden = new HashMap<>();

  WildflyPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.delivered = new Delivered(stock, order);
    this.war = new DerivedWar(order.artifact());
    this.configuration = Standalone.of(stock);
    this.archives = configuration.archives();
    this.drivers = new Drivers(server, delivered);
  }

  Wanted wanted() {
    refusals.refuse(configuration.contradictions());
    String path =
        application.context().path().orElseGet(() -> archives.pathOf(order.artifact().file()));
    JbossWeb descriptor =
        new JbossWeb(InnerDescriptor.of(war, JbossWeb.PATH, JbossWeb.EMPTY, refusals));
    descriptor.answersAt(path);
    String listener = listener(descriptor);
    dataSources(descriptor);
    application.context().entries().forEach(entry -> entry(descriptor, entry));
    users();
    war.put(JbossWeb.PATH, descriptor.text().text());
    Path archive = archives.of(application.name());
    delivered.live(archive, war.content());
    ArchivesIn.refuseFolder(order, server, refusals);
    Placement placement =
        new Placement(
            delivered.release(),
            Placement.Route.at(listener, path, server.ports()),
            archive,
            made(archive),
            new Placement.Timing(
                NOTICE.plusMillis(configuration.interval()), application.context().startsWithin()));
    Swap swap = configuration.interval() > 0 ? Swap.LIVE : Swap.RESTART;
    fragments.addAll(drivers.fragments());
    return new Wanted(placement, delivered.pieces(), swap, refusals.all(), doubts.all(), hidden)
        .after(fragments);
  }

  private Placement.Made made(Path archive) {
    List<Path> all = new ArrayList<>(drivers.deployed(archives));
    all.add(archive);
    return new Placement.Made(beside(all, TRACES), List.of(), beside(all, MARKS));
  }

  private List<Path> beside(List<Path> deployed, List<String> endings) {
    return deployed.stream().flatMap(one -> archives.beside(one, endings).stream()).toList();
  }

  private String listener(JbossWeb descriptor) {
    String listener = OrderedListener.of(server, order, refusals);
    if (listener.equals(Placement.ADMIN)) {
      descriptor.listensAt(Placement.ADMIN, Placement.ADMIN);
    } else if (!listener.equals(Placement.MAIN)) {
      descriptor.listensAt(NewConfiguration.MAIN_SERVER, host(listener));
    }
    return listener;
  }

  /** The host of that name: one of ours is put there, one of theirs has to stand. */
  private String host(String name) {
    if (configuration.isOurs()) {
      fragments.add(
          new Piece.Fragment(
              Configuration.file(server),
              Configuration.hostKey(name),
              Configuration.host(name),
              Part.SUPPORT,
              PickUp.RESTART));
      return name;
    }
    Optional<String> theirs = configuration.host(name);
    if (theirs.isEmpty()) {
      refusals.refuse(
          "host",
          "no virtual host of that name is in the configuration of this WildFly, which is yours",
          "Write " + Configuration.host(name) + " into its server 'default-server'");
    }
    return theirs.orElse(name);
  }

  private void users() {
    if (configuration.isOurs()) {
      hidden.putAll(IdentityXml.files(server).put(stock, order, new CryptHash(), delivered));
    } else if (!order.userPasswords().isEmpty()) {
      configuration.realm().ifPresentOrElse(this::users, this::refuseUsers);
    }
  }

  private void users(PropertiesRealm realm) {
    doubts.refuse(
        "users",
        "a WildFly that you have keeps passwords as MD5, quick to guess for whoever reads them",
        "Give people long passwords there, or deliver to one that 'jolly server new' made");
    HashedUsers users = realm.hashed(order);
    users.refuseOdd(WildflyKind.CALLED, refusals);
    hidden.putAll(users.hidden());
    users.users().forEach(user -> fragments.addAll(realm.pieces(user)));
  }

  private void refuseUsers() {
    refusals.refuse(
        "users",
        "this WildFly keeps users of applications elsewhere than in the files that it ships with",
        "Take [users] out for this server, and add them where it keeps its own");
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
    new PersistenceUnits(order, war, Artifact.ENVIRONMENT::concat).name(refusals);
  }

  private String driver(DataSource source) {
    if (configuration.isOurs()) {
      return drivers.asModule(source);
    }
    if (!Drivers.isAlone(source)) {
      refusals.refuse(
          source.jndiName(),
          "a WildFly that you have calls a driver by its archive only where that announces just one,"
              + " and "
              + source.driver().getFileName()
              + " does not",
          "Give an archive whose META-INF/services/java.sql.Driver names that driver alone");
    }
    return drivers.asArchive(source, application.name(), archives);
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
