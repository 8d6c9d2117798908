package jollycrate.site;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
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
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.Listening;
import jollycrate.secret.Reference;
import jollycrate.secret.SecretException;
import jollycrate.secret.Secrets;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.stock.ServerJava;

/** Founds servers: the folder is built beside its place and renamed as the last step. */
public final class ServerFoundation {
  private static final int FIRST_PORT = 8080;
  private static final String SERVICE = "service";
  private static final int LAST_PORT = 65_535;
  private static final Duration ASKED = Duration.ofSeconds(10);

  private final Host host;
  private final Setting setting;
  private final Kinds kinds;
  private final Secrets secrets;

  /** On a machine, with what references in {@code servers.toml} stand for. */
  public ServerFoundation(Host host, Setting setting, Kinds kinds, Secrets secrets) {
    this.host = host;
    this.secrets = secrets;
    this.setting = setting;
    this.kinds = kinds;
  }

  /** Makes the folder and the entry in {@code servers.toml}. */
  public ServerEntry found(NewServer wanted, Path serversFile) {
    List<ServerEntry> others =
        Files.exists(serversFile) ? ServersFile.read(serversFile) : List.of();
    Path folder =
        wanted
            .folder()
            .map(path -> setting.folder().resolve(path).normalize())
            .orElse(serversFile.resolveSibling("servers").resolve(wanted.name()));
    mustBeNew(wanted.name(), folder, others);
    if (!Jvm.isSize(wanted.memory())) {
      throw cannot(
          wanted.name(),
          "'" + wanted.memory() + "' is no size of memory",
          "Write it like --memory 512m");
    }
    int http = port(wanted.name(), wanted.http(), "http", FIRST_PORT, others);
    Optional<Integer> admin =
        wanted.service()
            ? Optional.empty()
            : Optional.of(port(wanted.name(), wanted.admin(), "admin", http + 1, others));
    if (admin.filter(port -> port == http).isPresent()) {
      throw cannot(wanted.name(), "'http' and 'admin' are the same port", "Give another port");
    }
    ServerEntry entry =
        new ServerEntry(
            wanted.name(),
            Optional.empty(),
            folder,
            wanted.installation().map(path -> installation(wanted.name(), path, serversFile)),
            wanted.javax(),
            new Ports(wanted.address(), http, Optional.empty(), admin, Optional.empty()),
            new Jvm(wanted.java(), wanted.memory(), List.of()),
            ServerVariables.NONE,
            wanted.service(),
            Keeping.USUAL,
            Optional.empty(),
            Steering.OURS,
            Optional.empty());
    build(entry);
    try {
      ServersEdit.add(serversFile, entry);
    } catch (IOException | RuntimeException e) {
      host.files().deleteTree(folder);
      throw e instanceof RuntimeException known
          ? known
          : cannot(
              wanted.name(), "'" + serversFile + "' cannot be written: " + e, "Fix its rights");
    }
    return entry;
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
        throw cannot(
            name, "'" + path + "' cannot be unpacked: " + IoReason.of(e), "Fetch it again");
      }
    }
    return folder;
  }

  private void mustBeNew(String name, Path folder, List<ServerEntry> others) {
    if (!name.matches(ServersFile.NAME_FORM)) {
      throw cannot(name, "it is no name", "Use letters, digits, _ and - only");
    }
    for (ServerEntry other : others) {
      if (other.name().equals(name)) {
        throw cannot(name, "servers.toml describes it already", "Choose another name");
      }
      if (other.host().isEmpty() && other.folder().equals(folder)) {
        throw cannot(
            name, "'" + folder + "' belongs to '" + other.name() + "'", "Choose another --folder");
      }
    }
    if (host.files().facts(folder).exists()) {
      throw cannot(name, "'" + folder + "' exists already", "Choose another --folder");
    }
  }

  private int port(
      String name, Optional<Integer> asked, String key, int from, List<ServerEntry> others) {
    int port = asked.orElseGet(() -> freeFrom(from, others));
    holder(port, others)
        .ifPresent(
            by -> {
              throw cannot(
                  name,
                  "of port " + port + " for " + key + ", " + by,
                  "Choose another --" + key + ", or end that program");
            });
    return port;
  }

  private int freeFrom(int first, List<ServerEntry> others) {
    return IntStream.rangeClosed(first, LAST_PORT)
        .filter(port -> holder(port, others).isEmpty())
        .findFirst()
        .orElse(first);
  }

  private Optional<String> holder(int port, List<ServerEntry> others) {
    for (ServerEntry other : others.stream().filter(one -> one.host().isEmpty()).toList()) {
      boolean has =
          Stream.of(
                  Optional.of(other.ports().http()), other.ports().admin(), other.ports().beside())
              .anyMatch(held -> held.filter(number -> number == port).isPresent());
      if (has) {
        return Optional.of("server '" + other.name() + "' has it");
      }
    }
    return host.processes().listening(port).orElse(Optional.empty()).map(ServerFoundation::told);
  }

  private static String told(Listening listening) {
    String process = listening.pid() > 0 ? " (process " + listening.pid() + ")" : "";
    return listening.program() + process + " listens on it";
  }

  /**
   * A server that nobody describes.
   *
   * @param asked empty: any port that is free now
   */
  public ServerEntry entryInPassing(
      String name, Path folder, boolean service, Optional<Integer> asked) {
    int http =
        port(name, Optional.of(asked.orElseGet(ServerFoundation::anyPort)), "http", 0, List.of());
    Optional<Integer> admin = service ? Optional.empty() : Optional.of(anyPort());
    return new ServerEntry(
        name,
        Optional.empty(),
        folder,
        Optional.empty(),
        false,
        new Ports(ServersFile.LOOPBACK, http, Optional.empty(), admin, Optional.empty()),
        Jvm.USUAL,
        ServerVariables.NONE,
        service,
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
    return freeFrom(FIRST_PORT, List.of());
  }

  /** Builds the folder of a server. */
  public void build(ServerEntry entry) {
    Path folder = entry.folder();
    Path beside = folder.resolveSibling("." + folder.getFileName() + ".part");
    Path installation =
        entry.service()
            ? beside
            : entry.installation().orElseGet(() -> PracticeInstallation.in(setting, entry.javax()));
    Server server = server(entry, installation, beside);
    ServerJava.feature(host, server.runtime().java());
    try {
      Files.createDirectories(folder.getParent());
    } catch (IOException e) {
      throw cannot(entry.name(), "'" + folder.getParent() + "' cannot be made: " + e, "");
    }
    host.files().deleteTree(beside);
    HostFiles files = host.files();
    Access access = files.facts(folder.getParent()).access().with("rwxr-x---");
    files.makeFolder(beside, access);
    ServerKind kind =
        entry.service() ? kinds.named(SERVICE) : kinds.recognise(files, installation).kind();
    for (Piece piece : kind.instance(files, server, access)) {
      if (piece instanceof Piece.WholeFile file) {
        files.put(file.path(), file.content(), file.access());
      } else if (piece instanceof Piece.Folder made) {
        files.makeFolder(made.path(), made.access());
      }
    }
    files.move(beside, folder);
  }

  /** The server of an entry here, in a folder that may not be its final one. */
  Server server(ServerEntry entry, Path installation, Path folder) {
    return server(host, entry, installation, folder);
  }

  /** The same on a machine. */
  Server server(Host host, ServerEntry entry, Path installation, Path folder) {
    Map<String, String> environment = new LinkedHashMap<>(host.environment());
    host.processes()
        .accountIn(folder)
        .ifPresent(account -> environment.putAll(account.variables()));
    List<String> unresolved = new ArrayList<>();
    addVariables(entry, environment, unresolved);
    return new Server(
        entry.name(),
        installation,
        folder,
        entry.ports(),
        new Server.Runtime(
            entry.jvm().home().orElseGet(() -> host.here() ? setting.java() : javaOf(host)),
            entry.jvm(),
            environment,
            entry.variables().declared(),
            List.copyOf(unresolved)),
        entry.keeping(),
        entry.front(),
        entry.steering(),
        entry.boot());
  }

  /** The Java that a log-in there would run. */
  private static Path javaOf(Host host) {
    String script =
        "readlink -f \"${JAVA_HOME:+$JAVA_HOME/bin/java}\" || readlink -f \"$(command -v java)\"";
    String told =
        host.processes()
            .run(List.of("/bin/sh", "-c", script), Path.of("/"), host.environment(), "", ASKED)
            .output()
            .strip();
    if (!told.endsWith("/bin/java")) {
      throw new HostException(
          "Cannot find a Java on '"
              + host.name()
              + "'. Install one there, or name its home as 'java' in servers.toml");
    }
    return Path.of(told).getParent().getParent();
  }

  private void addVariables(
      ServerEntry entry, Map<String, String> environment, List<String> unresolved) {
    for (String name : entry.variables().passed()) {
      Optional.ofNullable(System.getenv(name)).ifPresent(value -> environment.put(name, value));
    }
    entry
        .variables()
        .given()
        .forEach(
            (name, written) -> {
              try {
                environment.put(
                    name,
                    Reference.of(written, entry.variables().folder())
                        .map(secrets::resolve)
                        .orElse(written));
              } catch (SecretException e) {
                unresolved.add(name + ": " + e.getMessage());
              }
            });
  }

  private static NotDescribedException cannot(String what, String reason, String fix) {
    String tail = fix.isEmpty() ? "" : ". " + fix;
    return new NotDescribedException("Cannot make server '" + what + "': " + reason + tail);
  }
}
