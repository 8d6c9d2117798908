package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.host.Content;
import jollycrate.hosting.Delivered;
import jollycrate.server.Order;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Unfolded;
import jollycrate.server.Wanted;

/** What one order needs on a Tomcat: files under content-named paths, and a descriptor. */
final class TomcatPlacement {
  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Listener listener;
  private final Delivered delivered;
  private final List<Piece> before;
  private final Map<String, String> hidden = new HashMap<>();
  private final List<Wanted.Refused> refused = new ArrayList<>();

  TomcatPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    ListenerChoice choice = new ListenerChoice(stock, order);
    this.listener = choice.listener();
    this.before = choice.pieces();
    this.delivered = new Delivered(stock, order);
    refused.addAll(choice.refused());
    ServerXml configuration = ServerXml.of(stock);
    Tomee.leavesTraces(stock, configuration).ifPresent(refused::add);
    if (configuration.isTomee() && order.unfolded().isEmpty()) {
      refused.addAll(new TomeeSources(order.artifact()).refused());
    }
  }

  Wanted wanted() {
    String path =
        application
            .context()
            .path()
            .orElseGet(() -> ContextNames.pathOf(Delivered.baseName(order.artifact().file())));
    Path descriptors = listener.descriptors();
    Path switchPath = descriptors.resolve(ContextNames.baseName(path) + ".xml");
    delivered.folder(descriptors.getParent());
    delivered.folder(descriptors);
    ContextDescriptor descriptor = new ContextDescriptor(order.artifact().web().contextXml());
    descriptor.docBase(delivered.archive());
    order.unfolded().map(Unfolded::stamp).ifPresent(descriptor::unfolded);
    descriptor.libraries(delivered.drivers());
    users(descriptor);
    application.dataSources().forEach(source -> dataSource(descriptor, source));
    application.context().entries().forEach(entry -> entry(descriptor, entry));
    refuseExpandable("the server's folder", server.folder().toString(), "Use another folder");
    byte[] text = descriptor.text().bytes();
    hidden.putAll(ContextDescriptor.secretsIn(text));
    delivered.live(switchPath, Content.of(text));
    return new Wanted(
            placement(path, switchPath),
            delivered.pieces(),
            listener.live() ? Swap.LIVE : Swap.RESTART,
            refused,
            hidden)
        .after(before);
  }

  private Placement placement(String path, Path switchPath) {
    return new Placement(
        delivered.release(),
        Placement.Route.at(listener.label(), path, server.ports()),
        switchPath,
        new Placement.Made(
            List.of(listener.applications().resolve(ContextNames.baseName(path))),
            leftovers(),
            List.of()),
        new Placement.Timing(listener.notice(), application.context().startsWithin()));
  }

  /** A TomEE unpacks the archive once more, in a folder of the same name. */
  private List<Path> leftovers() {
    boolean unpacks = order.unfolded().isEmpty() && ServerXml.of(stock).isTomee();
    return unpacks
        ? Tomee.unpacked(
                server.folder(), stock.text(Tomee.options(server)), delivered.archivePath())
            .stream()
            .toList()
        : List.of();
  }

  private void users(ContextDescriptor descriptor) {
    if (order.userPasswords().isEmpty()) {
      return;
    }
    UsersXml users = UsersXml.of(order, delivered.earlier("users", ".xml"));
    hidden.putAll(users.hidden());
    Path file = delivered.secret("users", ".xml", users.text());
    descriptor.users(server.folder().relativize(file).toString(), listener.realm());
    order.userPasswords().keySet().forEach(name -> refuseExpandable("user " + name, name, ""));
  }

  private void dataSource(ContextDescriptor descriptor, DataSource source) {
    String fix = "Write it without '${'";
    refuseExpandable("'url' of " + source.jndiName(), source.url(), fix);
    refuseExpandable("'user' of " + source.jndiName(), source.user(), fix);
    String password = order.databasePasswords().getOrDefault(source.jndiName(), "");
    descriptor.resource(
        source.jndiName(), DataSourceXml.of(source, Delivered.driverClass(source), password));
  }

  private void entry(ContextDescriptor descriptor, EnvEntry entry) {
    String value = delivered.value(entry);
    refuseExpandable("[env-entry] " + entry.name(), value, "Write it without '${'");
    descriptor.entry(entry.name(), delivered.type(entry), value, entry.secret().isPresent());
  }

  private void refuseExpandable(String subject, String value, String fix) {
    if (value.contains(DataSourceXml.EXPANDED)) {
      refused.add(
          new Wanted.Refused(
              subject, "Tomcat would replace the '${' in it by something else", fix));
    }
  }
}
