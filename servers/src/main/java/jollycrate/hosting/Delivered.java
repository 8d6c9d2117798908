package jollycrate.hosting;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
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

/**
 * What an order puts on any server that hosts web applications: archives under content-named paths
 * in the folder {@code delivered}, with a folder of its own for each application.
 */
public final class Delivered {
  private static final int MOST_PACKAGES = 40;

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Artifact artifact;
  private final Path folder;
  private final Path own;
  private final Access folderAccess;
  private final Access openFile;
  private final Access secretFile;
  private final List<Piece> pieces = new ArrayList<>();

  /** Begins with nothing. */
  public Delivered(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.artifact = order.artifact();
    this.folder = server.folder().resolve("delivered");
    this.own = folder.resolve(application.name());
    this.folderAccess = stock.access().with("rwxr-x---");
    this.openFile = stock.access().with("rw-r-----");
    this.secretFile = stock.access().with("rw-------");
  }

  /** Everything so far, folders before what stands in them. */
  public List<Piece> pieces() {
    return pieces;
  }

  /** A folder has to be there. */
  public void folder(Path path) {
    if (pieces.stream().noneMatch(piece -> piece.path().equals(path))) {
      pieces.add(new Piece.Folder(path, folderAccess));
    }
  }

  private Path own() {
    folder(folder);
    folder(own);
    return own;
  }

  /** A file that everybody in the server's group may read. */
  public void open(Path path, Content content) {
    pieces.add(new Piece.WholeFile(path, content, openFile, Part.SUPPORT, PickUp.LIVE));
  }

  /** An archive that the server deploys beside the application, and for it alone. */
  public void companion(Path path, Content content) {
    pieces.add(new Piece.WholeFile(path, content, openFile, Part.COMPANION, PickUp.LIVE));
  }

  /** An archive that the server finds in a folder of its own when it starts. */
  public void atStart(Path folder, Path file) {
    Content content = Content.of(file);
    Path place = folder.resolve(calledByContent(file, content));
    if (pieces.stream().noneMatch(piece -> piece.path().equals(place))) {
      pieces.add(new Piece.WholeFile(place, content, openFile, Part.SUPPORT, PickUp.RESTART));
    }
  }

  private static String calledByContent(Path file, Content content) {
    return baseName(file) + "-" + Digests.brief(content.digest()) + ".jar";
  }

  /**
   * A file with secrets, of the application alone.
   *
   * @return where it stands, called by its content
   */
  public Path secret(String name, String ending, String text) {
    Content content = Content.of(text);
    Path file = own().resolve(name + "-" + Digests.brief(content.digest()) + ending);
    secret(file, content);
    return file;
  }

  /** A file with secrets that belongs to the server, in whatever form it wants. */
  public void secret(Path path, Content content) {
    pieces.add(new Piece.WholeFile(path, content, secretFile, Part.SUPPORT, PickUp.LIVE));
  }

  /** The file that makes the application live. */
  public void live(Path path, Content content) {
    pieces.add(new Piece.WholeFile(path, content, secretFile, Part.SWITCH, PickUp.LIVE));
  }

  /** Where the application's archive is to stand. */
  public Path archivePath() {
    return archivePath("");
  }

  private Path archivePath(String derived) {
    return own.resolve(
        application.name()
            + order.versionInNames()
            + derived
            + "-"
            + Digests.brief(artifact.digest())
            + ".war");
  }

  /** Where the server finds the application: its archive, or the folder that it is run from. */
  public Path archive() {
    if (order.unfolded().isPresent()) {
      return order.unfolded().get().folder();
    }
    own();
    Path war = archivePath();
    open(war, Content.of(artifact.file(), artifact.digest(), artifact.size()));
    return war;
  }

  /** Where the server finds an archive that carries something for it. */
  public Path archive(Content derived) {
    own();
    Path war = archivePath("-" + Digests.brief(derived.digest()));
    open(war, derived);
    return war;
  }

  /** Where the drivers of all its data sources stand. */
  public Set<Path> drivers() {
    Set<Path> drivers = new LinkedHashSet<>();
    for (DataSource source : application.dataSources()) {
      if (source.driver().toFile().isFile()) {
        drivers.add(shared("drivers", source.driver()));
      }
    }
    return drivers;
  }

  /**
   * An archive that applications share.
   *
   * @return where it stands, called by its content
   */
  public Path shared(String kind, Path file) {
    Content content = Content.of(file);
    Path place = folder.resolve(kind).resolve(calledByContent(file, content));
    folder(folder);
    folder(place.getParent());
    if (pieces.stream().noneMatch(piece -> piece.path().equals(place))) {
      open(place, content);
    }
    return place;
  }

  /** The text of a secret file of the application that stands; empty where none does. */
  public String earlier(String name, String ending) {
    String form = server.shown(own) + "/" + name + "-[0-9a-f]+" + ending.replace(".", "\\.");
    Optional<String> key =
        stock.standing().owner(application.name()).map(Standing.Owner::pieces).stream()
            .flatMap(held -> held.keySet().stream())
            .filter(held -> held.matches(form))
            .findFirst();
    return key.flatMap(held -> stock.text(Keys.path(server, held))).orElse("");
  }

  /** What is delivered. */
  public Placement.Release release() {
    return new Placement.Release(
        application.name(),
        order.version(),
        artifact.digest(),
        artifact.classes().ownPackages().stream().limit(MOST_PACKAGES).toList());
  }

  /** The class of a data source's driver; empty when its archive tells none. */
  public static String driverClass(DataSource source) {
    if (source.driverClass().isPresent()) {
      return source.driverClass().get();
    }
    try {
      return ArtifactReader.drivers(source.driver()).stream().findFirst().orElse("");
    } catch (IOException e) {
      return "";
    }
  }

  /** The value of an environment entry. */
  public String value(EnvEntry entry) {
    return entry.secret().map(order.values()::get).orElse(entry.value());
  }

  /** The type of an environment entry, as web.xml declares it where it does. */
  public String type(EnvEntry entry) {
    return artifact.web().envEntries().stream()
        .filter(declared -> declared.name().equals(entry.name()))
        .map(Artifact.DeclaredEntry::type)
        .filter(told -> !told.isEmpty())
        .findFirst()
        .orElse(entry.type());
  }

  /** The name of a file without what follows its last dot. */
  public static String baseName(Path file) {
    String name = file.getFileName().toString();
    int dot = name.lastIndexOf('.');
    return dot <= 0 ? name : name.substring(0, dot);
  }
}
