package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.host.HostException;
import jollycrate.server.Keys;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.xml.XmlElement;

/** Which listener of a Tomcat an order goes to, with what that has to be made of. */
final class ListenerChoice {
  private final Stock stock;
  private final Server server;
  private final Order order;
  private final ServerXml configuration;
  private final List<Wanted.Refused> refused = new ArrayList<>();
  private final List<Piece> pieces = new ArrayList<>();
  private final Listener listener;

  ListenerChoice(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.configuration = ServerXml.of(stock);
    this.listener = order.onAdminPort() ? admin() : open();
    usable();
    Printed.unreadable(stock).ifPresent(refused::add);
  }

  Listener listener() {
    return listener;
  }

  /** What keeps anything from being delivered there. */
  List<Wanted.Refused> refused() {
    return refused;
  }

  /** What the listener itself is made of, where it is there for applications of ours only. */
  List<Piece> pieces() {
    return pieces;
  }

  private Listener main() {
    return configuration
        .main()
        .orElseThrow(
            () ->
                new HostException(
                    "Cannot use '" + server.folder() + "': its conf/server.xml has no host"));
  }

  private Listener admin() {
    Optional<Integer> port = server.ports().admin();
    if (port.isEmpty()) {
      refuse(server.name(), "it has no admin listener", "Give it 'admin' in servers.toml");
      return main();
    }
    configuration.contradiction(port.get(), "admin").ifPresent(refused::add);
    if (configuration.servesBoth()) {
      refuse(
          "port " + port.get(),
          "its Connector stands in the same Service as that of 'http', so the public port would"
              + " answer too",
          "Give it a Service of its own: take it out of conf/server.xml, then 'jolly server"
              + " change "
              + server.name()
              + "' puts one there");
    }
    if (order.application().context().host().isPresent()) {
      refuse("host", "the admin listener has no virtual hosts", "Leave out --on-admin-port");
    }
    return configuration.admin().orElseGet(this::main);
  }

  private Listener open() {
    configuration.contradiction(server.ports().http(), "http").ifPresent(refused::add);
    Optional<String> host = order.application().context().host();
    return host.isEmpty() ? main() : named(host.get());
  }

  private Listener named(String host) {
    Optional<XmlElement> engine = configuration.mainEngine();
    Listener further = main().further(host);
    String name = engine.map(element -> element.value("name", "")).orElse("");
    Piece.Fragment fragment =
        new Piece.Fragment(
            ServerXml.file(server),
            HostSplicer.key(name, host),
            HostSplicer.element(host, server.shown(further.applications())),
            Part.SUPPORT,
            PickUp.RESTART);
    Optional<Listener> there = configuration.virtualHost(host);
    boolean ours = stock.standing().pieces().containsKey(Keys.of(server, fragment));
    if (there.isPresent() && !ours) {
      return there.get();
    }
    if (name.contains("$") || engine.filter(XmlElement::selfClosed).isPresent()) {
      refuse(
          "host " + host,
          "its Engine in conf/server.xml is written so that no Host can be put there",
          "Write the Host there by hand");
      return main();
    }
    pieces.add(fragment);
    pieces.add(new Piece.Folder(further.applications(), stock.access().with("rwxr-x---")));
    return further;
  }

  private void usable() {
    Path descriptors = listener.descriptors();
    if (!descriptors.startsWith(server.folder())) {
      refuse(
          descriptors.toString(),
          "its host reads descriptors outside the server's folder, where nothing is written",
          "Take 'xmlBase' out of the Host in conf/server.xml");
    }
    if (!listener.live() && !listener.atStart()) {
      refuse(
          server.name(),
          "its host deploys neither when the server starts nor later",
          "Set deployOnStartup=\"true\" on the Host in conf/server.xml");
    }
  }

  private void refuse(String subject, String message, String fix) {
    refused.add(new Wanted.Refused(subject, message, fix));
  }
}
