package jollycrate.site;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Jvm;
import jollycrate.app.Keeping;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServerVariables;
import jollycrate.app.ServersEdit;
import jollycrate.app.ServersFile;
import jollycrate.app.Setting;
import jollycrate.app.Steering;
import jollycrate.file.IoReason;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.server.Feature;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.stock.ServerJava;

/** Founds servers: the folder is built beside its place and renamed as the last step. */
public final class ServerFoundation {
  private static final int FIRST_PORT = 8080;
  private static final String EVERY_ADDRESS = "0.0.0.0";

  private final Host host;
  private final Setting setting;
  private final Kinds kinds;
  private final Instances instances;
  private final Machines machines;

  /** On a machine. */
  public ServerFoundation(
      Host host, Setting setting, Kinds kinds, Instances instances, Machines machines) {
    this.host = host;
    this.instances = instances;
    this.machines = machines;
    this.setting = setting;
    this.kinds = kinds;
  }

  /** Makes the folder and the entry in {@code servers.toml}. */
  public ServerEntry found(NewServer wanted, Path serversFile) {
    Host at = machines.named(wanted.host());
    List<ServerEntry> others =
        Files.exists(serversFile) ? ServersFile.read(serversFile) : List.of();
    Path folder = folder(wanted, serversFile, at);
    mustBeNew(wanted.name(), folder, others, at);
    if (!Jvm.isSize(wanted.memory())) {
      throw cannot(
          wanted.name(),
          "'" + wanted.memory() + "' is no size of memory",
          "Write it like --memory 512m");
    }
    Ports free = at.sight().once(() -> ports(wanted, others, at));
    Jvm jvm =
        new Jvm(
            wanted.java().map(java -> java(java, at)),
            Optional.empty(),
            wanted.memory(),
            List.of());
    ServerJava.feature(at, instances.java(jvm, at));
    Optional<Path> installation = installation(wanted, serversFile, at);
    Ports ports =
        installation
            .map(path -> listeners(wanted, kinds.recognise(at.files(), path), free))
            .orElse(free);
    ServerEntry entry =
        new ServerEntry(
            wanted.name(),
            wanted.host(),
            folder,
            installation,
            wanted.javax(),
            ports,
            jvm,
            ServerVariables.NONE,
            wanted.kind(),
            Keeping.USUAL,
            Optional.empty(),
            Steering.OURS,
            Optional.empty());
    build(at, entry);
    try {
      ServersEdit.add(serversFile, entry);
    } catch (IOException | RuntimeException e) {
      at.files().deleteTree(folder);
      throw e instanceof RuntimeException known
          ? known
          : cannot(
              wanted.name(), "'" + serversFile + "' cannot be written: " + e, "Fix its rights");
    }
    return entry;
  }

  /** Those of them that servers of a kind have. */
  private static Ports listeners(NewServer wanted, Kinds.Recognised kind, Ports free) {
    if (kind.traits().features().contains(Feature.ADMIN_LISTENER)) {
      return free;
    }
    if (wanted.admin().isPresent()) {
      throw cannot(
          wanted.name(), kind.traits().label() + " has no admin listener", "Leave out --admin");
    }
    return free.withoutAdmin();
  }

  private Path folder(NewServer wanted, Path serversFile, Host at) {
    if (at.here()) {
      return wanted
          .folder()
          .map(path -> setting.folder().resolve(path).normalize())
          .orElse(serversFile.resolveSibling("servers").resolve(wanted.name()));
    }
    wanted
        .folder()
        .filter(path -> !path.isAbsolute())
        .ifPresent(
            path -> {
              throw cannot(
                  wanted.name(),
                  "'" + path + "' is no whole path on '" + at.name() + "'",
                  "Write it like --folder /srv/" + wanted.name());
            });
    return wanted
        .folder()
        .orElseGet(() -> Provisions.home(at).resolve("servers").resolve(wanted.name()));
  }

  private Ports ports(NewServer wanted, List<ServerEntry> described, Host at) {
    at.sight().ahead(new Glance().processes());
    List<ServerEntry> others =
        described.stream().filter(one -> one.host().equals(wanted.host())).toList();
    String address =
        wanted
            .address()
            .or(() -> wanted.host().flatMap(machines::inside))
            .orElse(at.here() ? ServersFile.LOOPBACK : EVERY_ADDRESS);
    FreePorts free = new FreePorts(wanted.name(), at, others);
    int http = free.port(wanted.http(), "http", FIRST_PORT, address);
    Optional<Integer> admin =
        wanted.kind().isPresent()
            ? Optional.empty()
            : Optional.of(free.port(wanted.admin(), "admin", http + 1, ""));
    if (admin.filter(port -> port == http).isPresent()) {
      throw cannot(wanted.name(), "'http' and 'admin' are the same port", "Give another port");
    }
    Ports ports = new Ports(address, http, Optional.empty(), admin, Optional.empty());
    return wanted.host().map(ports::on).orElse(ports);
  }

  /** A home; an archive of one that is to be on another machine is unpacked there. */
  private Path java(Path told, Host at) {
    Path here = setting.folder().resolve(told).normalize();
    return !at.here() && Files.isRegularFile(here) && Unpacking.isArchive(here)
        ? Provisions.of(at).put(here)
        : told;
  }

  /** On another machine an archive is unpacked there; a folder is one there. */
  private Optional<Path> installation(NewServer wanted, Path serversFile, Host at) {
    if (wanted.kind().isPresent()) {
      return Optional.empty();
    }
    if (at.here()) {
      return wanted.installation().map(path -> installation(wanted.name(), path, serversFile));
    }
    Optional<Path> archive =
        wanted
            .installation()
            .map(path -> setting.folder().resolve(path).normalize())
            .filter(path -> Files.isRegularFile(path) && Unpacking.isArchive(path));
    if (wanted.installation().isPresent() && archive.isEmpty()) {
      return wanted.installation();
    }
    Path source = archive.orElseGet(() -> PracticeInstallation.archive(setting, wanted.javax()));
    return Optional.of(mustBeKnown(source, Provisions.of(at).put(source), at.files()));
  }

  /** An unpacked server; one in an archive is unpacked beside the description. */
  private Path installation(String name, Path told, Path serversFile) {
    Path path = setting.folder().resolve(told).normalize();
    if (!Files.isRegularFile(path)) {
      return path;
    }
    if (!Unpacking.isArchive(path)) {
      throw cannot(
          name,
          "'" + path + "' is neither a folder nor an archive",
          "Give an unpacked server, or its .zip or .tar.gz");
    }
    Path folder = serversFile.resolveSibling("installations").resolve(Unpacking.baseName(path));
    if (!Files.isDirectory(folder)) {
      try {
        Unpacking.unpack(path, folder);
      } catch (IOException e) {
        goesIfEmpty(folder.getParent(), host.files());
        throw cannot(
            name, "'" + path + "' cannot be unpacked: " + IoReason.of(e), "Fetch it again");
      }
      mustBeKnown(path, folder, host.files());
    }
    return folder;
  }

  /** What was unpacked just now and is no use does not stay. */
  private Path mustBeKnown(Path archive, Path unpacked, HostFiles files) {
    if (kinds.recognised(files, unpacked).isPresent()) {
      return unpacked;
    }
    String why = kinds.whyNot(files, unpacked);
    files.deleteTree(unpacked);
    goesIfEmpty(unpacked.getParent(), files);
    throw new NotDescribedException(
        "Cannot use '" + archive + "' as an installation: " + why + ". Give another");
  }

  private static void goesIfEmpty(Path folder, HostFiles files) {
    if (files.list(folder).isEmpty()) {
      files.delete(folder);
    }
  }

  private void mustBeNew(String name, Path folder, List<ServerEntry> others, Host at) {
    if (!name.matches(ServersFile.NAME_FORM)) {
      throw cannot(name, "it is no name", "Use letters, digits, _ and - only");
    }
    for (ServerEntry other : others) {
      if (other.name().equals(name)) {
        throw cannot(name, "servers.toml describes it already", "Choose another name");
      }
      if (other.host().map(at.name()::equals).orElse(at.here()) && other.folder().equals(folder)) {
        throw cannot(
            name, "'" + folder + "' belongs to '" + other.name() + "'", "Choose another --folder");
      }
    }
    if (at.files().facts(folder).exists()) {
      throw cannot(name, "'" + folder + "' exists already", "Choose another --folder");
    }
  }

  /**
   * A server that nobody describes.
   *
   * @param program whether a program is to run in it by itself
   * @param asked empty: any port that is free now
   */
  public ServerEntry entryInPassing(
      String name, Path folder, boolean program, Optional<Integer> asked) {
    int http =
        new FreePorts(name, host, List.of())
            .port(Optional.of(asked.orElseGet(ServerFoundation::anyPort)), "http", 0, "");
    Optional<String> kind = program ? Optional.of(kinds.forPrograms()) : Optional.empty();
    Optional<Integer> admin = program ? Optional.empty() : Optional.of(anyPort());
    return new ServerEntry(
        name,
        Optional.empty(),
        folder,
        Optional.empty(),
        false,
        new Ports(ServersFile.LOOPBACK, http, Optional.empty(), admin, Optional.empty()),
        Jvm.USUAL,
        ServerVariables.NONE,
        kind,
        Keeping.USUAL,
        Optional.empty(),
        Steering.OURS,
        Optional.empty());
  }

  private static int anyPort() {
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      return socket.getLocalPort();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The first port for HTTP that nobody has. */
  public int firstFreePort() {
    return new FreePorts("", host, List.of()).freeFrom(FIRST_PORT, "");
  }

  /** Builds the folder of a server here. */
  public void build(ServerEntry entry) {
    build(host, entry);
  }

  private void build(Host at, ServerEntry entry) {
    Path folder = entry.folder();
    Path beside = folder.resolveSibling("." + folder.getFileName() + ".part");
    Path installation =
        entry.kind().isPresent()
            ? beside
            : entry.installation().orElseGet(() -> PracticeInstallation.in(setting, entry.javax()));
    Server server = instances.server(at, entry, installation, beside);
    HostFiles files = at.files();
    ServerKind kind =
        entry
            .kind()
            .map(told -> kinds.named(told, entry.name()))
            .orElseGet(() -> kinds.recognise(files, installation).kind());
    Access access = parent(at, entry).with("rwxr-x---");
    files.deleteTree(beside);
    at.sight()
        .together(
            () -> {
              files.makeFolder(beside, access);
              for (Piece piece : kind.instance(files, server, access)) {
                if (piece instanceof Piece.WholeFile file) {
                  files.put(file.path(), file.content(), file.access());
                } else if (piece instanceof Piece.Folder made) {
                  files.makeFolder(made.path(), made.access());
                }
              }
              files.move(beside, folder);
            });
  }

  /** Makes the folder that it is to stand in; whose that is. */
  private static Access parent(Host at, ServerEntry entry) {
    Path parent = entry.folder().getParent();
    if (!at.here()) {
      return Provisions.makeFolders(at, parent);
    }
    try {
      Files.createDirectories(parent);
    } catch (IOException e) {
      throw cannot(entry.name(), "'" + parent + "' cannot be made: " + e, "");
    }
    return at.files().facts(parent).access();
  }

  static NotDescribedException cannot(String what, String reason, String fix) {
    String tail = fix.isEmpty() ? "" : ". " + fix;
    return new NotDescribedException("Cannot make server '" + what + "': " + reason + tail);
  }
}
