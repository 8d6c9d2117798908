package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import jollycrate.app.Ports;
import jollycrate.host.HostFiles;
import jollycrate.server.Overhaul;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.xml.XmlElement;

/** Brings {@code conf/server.xml} to what {@code servers.toml} says of ports and addresses. */
final class Described {
  private final Server server;
  private final Ports before;
  private final ServerXml configuration;
  private final Edits edits;
  private final AdminService adminService;
  private final List<Doubt> done = new ArrayList<>();
  private final List<Wanted.Refused> refused = new ArrayList<>();

  Described(HostFiles files, Stock stock, Ports before) {
    this.server = stock.server();
    this.before = before;
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
    return new Overhaul(
        edits.wanted(), edits.seen(), List.of(), done, List.of(), refused, Map.of());
  }

  private Optional<ServerXml.Connector> on(int port) {
    return configuration.connectors().stream()
        .filter(connector -> connector.port().equals(OptionalInt.of(port)))
        .findFirst();
  }

  /** Nothing where one listens on it already, or where the launch itself tells the port. */
  private void port(int old, int now, String key) {
    if (on(now).isPresent()) {
      return;
    }
    Optional<ServerXml.Connector> connector =
        on(old).or(() -> key.equals("http") ? only() : Optional.empty());
    if (connector.isPresent()) {
      set(connector.get(), "port", "" + now);
    } else if (key.equals("http")) {
      configuration.contradiction(now, key).ifPresent(refused::add);
    }
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
    on(now.http())
        .or(() -> on(before.http()))
        .filter(connector -> !connector.address().equals(now.address()))
        .ifPresent(connector -> set(connector, "address", now.address()));
  }

  private void set(ServerXml.Connector connector, String attribute, String value) {
    XmlElement element = connector.element();
    String written = element.value(attribute, "");
    if (written.contains("${")) {
      refused.add(
          new Wanted.Refused(
              connector.where(),
              "its " + attribute + " is " + written,
              "Change it where that is set, then say so in servers.toml"));
      return;
    }
    edits.add(edits.serverXml().setting(element, attribute, value));
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
