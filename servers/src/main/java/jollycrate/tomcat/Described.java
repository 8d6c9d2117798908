package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import jollycrate.app.Https;
import jollycrate.app.Ports;
import jollycrate.host.HostFiles;
import jollycrate.secret.Secrets;
import jollycrate.server.Keystore;
import jollycrate.server.Overhaul;
import jollycrate.server.Piece;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;
import jollycrate.xml.XmlElement;

/** Brings {@code conf/server.xml} to what {@code servers.toml} says of ports and addresses. */
final class Described {
  private final Stock stock;
  private final Server server;
  private final Ports before;
  private final Optional<Keystore> keystore;
  private final ServerXml configuration;
  private final Edits edits;
  private final AdminService adminService;
  private final List<Piece.WholeFile> files = new ArrayList<>();
  private final List<Path> gone = new ArrayList<>();
  private final Map<String, String> hidden = new HashMap<>();
  private final List<Doubt> done = new ArrayList<>();
  private final List<Wanted.Refused> refused = new ArrayList<>();

  Described(HostFiles files, Stock stock, Wish.AsDescribed wish) {
    this.stock = stock;
    this.server = stock.server();
    this.before = wish.before();
    this.keystore = wish.keystore();
    this.configuration = ServerXml.of(stock);
    this.edits = new Edits(files, server, configuration);
    this.adminService = new AdminService(files, server, configuration);
  }

  Overhaul overhaul() {
    Ports now = server.ports();
    port(before.http(), now.http(), "http");
    if (!now.address().equals(before.address())) {
      address(now);
    }
    if (now.admin().isPresent() && before.admin().isPresent()) {
      port(before.admin().get(), now.admin().get(), "admin");
    }
    now.admin().ifPresent(this::admin);
    if (now.admin().isEmpty()) {
      before.admin().ifPresent(this::noAdmin);
    }
    server.steering().stopPort().ifPresent(this::stopPort);
    now.https().ifPresent(this::https);
    if (now.https().isEmpty()) {
      before.https().ifPresent(this::noHttps);
    }
    files.addAll(edits.wanted());
    return new Overhaul(files, edits.seen(), gone, done, List.of(), refused, hidden);
  }

  private void stopPort(int port) {
    int now = configuration.stopPort().map(ServerXml.StopPort::port).orElse(0);
    XmlElement root = configuration.document().root();
    String where = configuration.where(root);
    if (now != port && mayBeSet(root, "port", where)) {
      edits.add(edits.serverXml().setting(root, "port", port == 0 ? "-1" : "" + port));
      done.add(new Doubt("stop port", shown(now) + " becomes " + shown(port), where, ""));
    }
  }

  private static String shown(int stopPort) {
    return stopPort == 0 ? "none" : "" + stopPort;
  }

  private void https(Https https) {
    int old = before.https().map(Https::port).orElse(https.port());
    Optional<HttpsConnector> ours =
        HttpsConnector.on(https.port(), stock, configuration)
            .or(() -> HttpsConnector.on(old, stock, configuration));
    if (ours.isPresent()) {
      port(old, https.port(), "https");
      keystore.filter(wanted -> !ours.get().names(wanted)).ifPresent(it -> renew(ours.get(), it));
    } else if (on(https.port()).isEmpty()) {
      keystore.ifPresentOrElse(
          it -> https(https.port(), it),
          () ->
              refused.add(
                  new Wanted.Refused(
                      "https",
                      "nothing listens for HTTPS on " + https.port() + ", and no keystore is named",
                      "Take 'certificate' out of servers.toml, then do this again")));
    }
  }

  private void https(int port, Keystore wanted) {
    Optional<ServerXml.Connector> beside = on(server.ports().http()).or(() -> on(before.http()));
    if (beside.isEmpty()) {
      refused.add(
          new Wanted.Refused("https", "it has no connector for HTTP beside which to put one", ""));
      return;
    }
    edits.add(HttpsConnector.adding(beside.get(), configuration, port, wanted));
    put(wanted);
  }

  private void renew(HttpsConnector ours, Keystore wanted) {
    ours.naming(wanted).forEach(edits::add);
    gone.addAll(ours.files());
    put(wanted);
  }

  private void put(Keystore wanted) {
    files.addAll(HttpsConnector.files(stock, wanted));
    hidden.put(wanted.password(), Secrets.HIDDEN);
    done.add(new Doubt("https", "certificate " + wanted.told(), wanted.certificate(), ""));
  }

  private void noHttps(Https https) {
    HttpsConnector.on(https.port(), stock, configuration)
        .ifPresent(
            ours -> {
              edits.add(ours.removing());
              gone.addAll(ours.files());
            });
  }

  private Optional<ServerXml.Connector> on(int port) {
    return configuration.connectors().stream()
        .filter(connector -> connector.port().equals(OptionalInt.of(port)))
        .findFirst();
  }

  /** Nothing in the file where one listens on it already: the launch itself may tell the port. */
  private void port(int old, int now, String key) {
    Optional<ServerXml.Connector> connector =
        on(now).isPresent()
            ? Optional.empty()
            : on(old).or(() -> key.equals("http") ? only() : Optional.empty());
    connector.ifPresentOrElse(
        its -> set(its, "port", "" + now),
        () -> {
          if (key.equals("http")) {
            configuration.contradiction(now, key).ifPresent(refused::add);
          }
        });
    if (old != now) {
      becomes(key, "" + old, "" + now, connector);
    }
  }

  private void becomes(
      String key, String old, String now, Optional<ServerXml.Connector> connector) {
    String where = connector.map(ServerXml.Connector::where).orElse("");
    done.add(new Doubt(key, old + " becomes " + now, where, ""));
  }

  /** The one connector for HTTP, where it is sure which one is meant. */
  private Optional<ServerXml.Connector> only() {
    List<ServerXml.Connector> plain =
        configuration.connectors().stream()
            .filter(connector -> !connector.tls())
            .filter(
                connector ->
                    connector.port().stream()
                        .noneMatch(port -> server.ports().admin().equals(Optional.of(port))))
            .toList();
    return plain.size() == 1 ? Optional.of(plain.get(0)) : Optional.empty();
  }

  private void address(Ports now) {
    Optional<ServerXml.Connector> connector =
        on(now.http())
            .or(() -> on(before.http()))
            .filter(its -> !its.address().equals(now.address()));
    connector.ifPresent(its -> set(its, "address", now.address()));
    becomes("address", before.address(), now.address(), connector);
  }

  private void set(ServerXml.Connector connector, String attribute, String value) {
    if (mayBeSet(connector.element(), attribute, connector.where())) {
      edits.add(edits.serverXml().setting(connector.element(), attribute, value));
    }
  }

  /** What stands somewhere else is not ours to say here. */
  private boolean mayBeSet(XmlElement element, String attribute, String where) {
    String written = element.value(attribute, "");
    if (written.contains("${")) {
      refused.add(
          new Wanted.Refused(
              where,
              "its " + attribute + " is " + written,
              "Change it where that is set, then say so in servers.toml"));
      return false;
    }
    return true;
  }

  private void admin(int port) {
    boolean there = on(port).isPresent() || before.admin().flatMap(this::on).isPresent();
    if (!there) {
      adminService
          .clash()
          .ifPresentOrElse(
              refused::add,
              () -> {
                edits.add(adminService.adding(port));
                done.add(
                    new Doubt(
                        "admin",
                        "a listener of its own on loopback, with threads and applications of its"
                            + " own",
                        "",
                        ""));
              });
    }
  }

  private void noAdmin(int port) {
    adminService
        .ours(port)
        .ifPresentOrElse(
            service -> edits.add(adminService.removing(service)),
            () ->
                on(port)
                    .ifPresent(
                        connector ->
                            refused.add(
                                new Wanted.Refused(
                                    "admin",
                                    "its admin listener is not one that 'server change' put there",
                                    "Take it out of " + connector.where() + " by hand"))));
  }
}
