package jollycrate.tomcat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactReader;
import jollycrate.file.Digests;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.server.Keys;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wanted;

/** What one order needs on a Tomcat: files under content-named paths, and a descriptor. */
final class TomcatPlacement {
  private static final int MOST_PACKAGES = 40;

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Artifact artifact;
  private final Listener listener;
  private final Path delivered;
  private final Path own;
  private final Access folderAccess;
  private final Access openFile;
  private final Access secretFile;
  private final List<Piece> pieces = new ArrayList<>();
  private final Map<String, String> hidden = new HashMap<>();
  private final List<Wanted.Refused> refused = new ArrayList<>();

  TomcatPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.artifact = order.artifact();
    ListenerChoice choice = new ListenerChoice(stock, order);
    this.listener = choice.listener();
    refused.addAll(choice.refused());
    Tomee.leavesTraces(stock, ServerXml.of(stock)).ifPresent(refused::add);
    pieces.addAll(choice.pieces());
    this.delivered = server.folder().resolve("delivered");
    this.own = delivered.resolve(application.name());
    this.folderAccess = stock.access().with("rwxr-x---");
    this.openFile = stock.access().with("rw-r-----");
    this.secretFile = stock.access().with("rw-------");
  }

  Wanted wanted() {
    String path =
        application
            .context()
            .path()
            .orElseGet(
                () ->
                    ContextNames.pathOf(
                        ContextNames.withoutExtension(artifact.file().getFileName().toString())));
    Path descriptors = listener.descriptors();
    Path switchPath = descriptors.resolve(ContextNames.baseName(path) + ".xml");
    for (Path folder : List.of(delivered, own, descriptors.getParent(), descriptors)) {
      pieces.add(new Piece.Folder(folder, folderAccess));
    }
    ContextDescriptor descriptor = new ContextDescriptor(artifact.web().contextXml());
    if (order.unfolded().isPresent()) {
      descriptor.docBase(order.unfolded().get().folder());
      descriptor.unfolded(order.unfolded().get().stamp());
    } else {
      Path war = warPath();
      pieces.add(
          support(war, Content.of(artifact.file(), artifact.digest(), artifact.size()), openFile));
      descriptor.docBase(war);
    }
    descriptor.libraries(drivers());
    users(descriptor);
    application.dataSources().forEach(source -> dataSource(descriptor, source));
    application.context().entries().forEach(entry -> entry(descriptor, entry));
    refuseExpandable("the server's folder", server.folder().toString(), "Use another folder");
    byte[] text = descriptor.text().bytes();
    hidden.putAll(ContextDescriptor.secretsIn(text));
    Optional.ofNullable(stock.texts().get(switchPath))
        .ifPresent(old -> hidden.putAll(ContextDescriptor.secretsIn(old)));
    pieces.add(
        new Piece.WholeFile(switchPath, Content.of(text), secretFile, Part.SWITCH, PickUp.LIVE));
    return new Wanted(
        placement(path, switchPath),
        pieces,
        listener.live() ? Swap.LIVE : Swap.RESTART,
        refused,
        hidden);
  }

  private Path warPath() {
    return own.resolve(
        application.name()
            + order.versionInNames()
            + "-"
            + Digests.brief(artifact.digest())
            + ".war");
  }

  private static Piece support(Path path, Content content, Access access) {
    return new Piece.WholeFile(path, content, access, Part.SUPPORT, PickUp.LIVE);
  }

  private Placement placement(String path, Path switchPath) {
    return new Placement(
        new Placement.Release(
            application.name(),
            order.version(),
            artifact.digest(),
            artifact.classes().ownPackages().stream().limit(MOST_PACKAGES).toList()),
        Placement.Route.at(listener.label(), path, server.ports()),
        switchPath,
        List.of(listener.applications().resolve(ContextNames.baseName(path))),
        leftovers(),
        new Placement.Timing(listener.notice(), application.context().startsWithin()));
  }

  /** A TomEE unpacks the archive once more, in a folder of the same name. */
  private List<Path> leftovers() {
    boolean unpacks = order.unfolded().isEmpty() && ServerXml.of(stock).isTomee();
    return unpacks
        ? Tomee.unpacked(server.folder(), stock.text(Tomee.options(server)), warPath()).stream()
            .toList()
        : List.of();
  }

  private Set<Path> drivers() {
    Set<Path> drivers = new LinkedHashSet<>();
    Path folder = delivered.resolve("drivers");
    for (DataSource source : application.dataSources()) {
      Path file = source.driver();
      if (!file.toFile().isFile()) {
        continue;
      }
      Content content = Content.of(file);
      String base = ContextNames.withoutExtension(file.getFileName().toString());
      Path place = folder.resolve(base + "-" + Digests.brief(content.digest()) + ".jar");
      if (drivers.isEmpty()) {
        pieces.add(new Piece.Folder(folder, folderAccess));
      }
      if (drivers.add(place)) {
        pieces.add(support(place, content, openFile));
      }
    }
    return drivers;
  }

  private void users(ContextDescriptor descriptor) {
    if (order.userPasswords().isEmpty()) {
      return;
    }
    UsersXml users = UsersXml.of(order, earlierUsers());
    hidden.putAll(users.hidden());
    Content content = Content.of(users.text());
    Path file = own.resolve("users-" + Digests.brief(content.digest()) + ".xml");
    pieces.add(support(file, content, secretFile));
    descriptor.users(server.folder().relativize(file).toString(), listener.realm());
    order.userPasswords().keySet().forEach(name -> refuseExpandable("user " + name, name, ""));
  }

  private String earlierUsers() {
    Optional<String> key =
        stock.standing().owner(application.name()).map(Standing.Owner::pieces).stream()
            .flatMap(held -> held.keySet().stream())
            .filter(name -> name.matches("delivered/[^/]+/users-[0-9a-f]+\\.xml"))
            .findFirst();
    return key.flatMap(name -> stock.text(Keys.path(server, name))).orElse("");
  }

  private void dataSource(ContextDescriptor descriptor, DataSource source) {
    String fix = "Write it without '${'";
    refuseExpandable("'url' of " + source.jndiName(), source.url(), fix);
    refuseExpandable("'user' of " + source.jndiName(), source.user(), fix);
    String password = order.databasePasswords().getOrDefault(source.jndiName(), "");
    descriptor.resource(source.jndiName(), DataSourceXml.of(source, driverClass(source), password));
  }

  private void entry(ContextDescriptor descriptor, EnvEntry entry) {
    String value = entry.secret().map(order.values()::get).orElse(entry.value());
    String type =
        artifact.web().envEntries().stream()
            .filter(declared -> declared.name().equals(entry.name()))
            .map(Artifact.DeclaredEntry::type)
            .filter(told -> !told.isEmpty())
            .findFirst()
            .orElse(entry.type());
    refuseExpandable("[env-entry] " + entry.name(), value, "Write it without '${'");
    descriptor.entry(entry.name(), type, value, entry.secret().isPresent());
  }

  private void refuseExpandable(String subject, String value, String fix) {
    if (value.contains(DataSourceXml.EXPANDED)) {
      refused.add(
          new Wanted.Refused(
              subject, "Tomcat would replace the '${' in it by something else", fix));
    }
  }

  private static String driverClass(DataSource source) {
    if (source.driverClass().isPresent()) {
      return source.driverClass().get();
    }
    try {
      return ArtifactReader.drivers(source.driver()).stream().findFirst().orElse("");
    } catch (IOException e) {
      return "";
    }
  }
}
