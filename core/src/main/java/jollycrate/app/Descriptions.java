package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.secret.Reference;

/**
 * The files that people write, found upwards from a folder and read afresh each time.
 *
 * @param folder where the tool works
 * @param values what references to something that everybody may see stand for
 */
public record Descriptions(Path folder, Function<Reference, String> values) {
  /** The application, with per-server values over the common ones. */
  public Application application(Optional<String> server) {
    return ApplicationFile.read(
        mustBeDescribed(), server.map(name -> new ForServer(name, serversFile())), values);
  }

  /** Every value of the application that counts for a server. */
  public List<Written> written(String server) {
    return ApplicationFile.written(mustBeDescribed(), new ForServer(server, serversFile()), values);
  }

  /** The file that describes the application; empty when there is none. */
  public Optional<Path> file() {
    return ApplicationFile.findUpwards(folder, ApplicationFile.NAME);
  }

  private Path mustBeDescribed() {
    return file()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot find jolly.toml in '"
                        + folder
                        + "' or above. Go to your"
                        + " project's folder, or name a file: jolly deploy FILE.war --to NAME"));
  }

  /** Whether an application is described here. */
  public boolean isDescribed() {
    return file().isPresent();
  }

  /** The application as it stands for that server. */
  public Application application(ServerEntry entry) {
    return placed(application(Optional.of(entry.name())), entry);
  }

  /** A program of its own answers at the root unless it says its path. */
  public static Application placed(Application read, ServerEntry entry) {
    boolean war =
        read.making().packs().isEmpty()
            ? read.making().artifact().filter(file -> file.toString().endsWith(".war")).isPresent()
            : chosen(read, entry).shape().isWar();
    return entry.runsPrograms() && !war ? read : atItsName(read);
  }

  /** The same at a path by its name, unless it says its own. */
  public static Application atItsName(Application read) {
    return read.context().path().isPresent() ? read : read.at("/" + read.name());
  }

  /** What that server gets. */
  public static PackDescription chosen(Application application, ServerEntry entry) {
    return entry.runsPrograms()
        ? PackChoice.chosenToRun(application)
        : PackChoice.chosen(application, Optional.empty());
  }

  /** The file that describes the servers. */
  public Optional<Path> serversFile() {
    return ApplicationFile.findUpwards(folder, ServersFile.NAME);
  }

  /** Every described server. */
  public List<ServerEntry> entries() {
    return ServersFile.read(mustDescribeServers());
  }

  private Path mustDescribeServers() {
    return serversFile()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot find servers.toml in '"
                        + folder
                        + "' or above. Make a"
                        + " practice server with 'jolly server new NAME'"));
  }

  /** The server of that name. */
  public ServerEntry entry(String name) {
    boolean machine = hosts().stream().anyMatch(host -> host.name().equals(name));
    String other =
        machine ? "That is a machine. A server on it: jolly server new NAME --host " + name : "";
    return named(name, "server", entries(), ServerEntry::name, other);
  }

  /** Every described machine. */
  public List<HostEntry> hosts() {
    return ServersFile.hosts(mustDescribeServers());
  }

  /** The machine of that name. */
  public HostEntry host(String name) {
    String other =
        entries().stream()
            .filter(entry -> entry.name().equals(name))
            .map(entry -> "That is a server" + entry.host().map(at -> " on " + at).orElse(""))
            .findFirst()
            .orElse("");
    return named(name, "host", hosts(), HostEntry::name, other);
  }

  private static <T> T named(
      String name, String what, List<T> entries, Function<T, String> nameOf, String other) {
    List<String> names = entries.stream().map(nameOf).toList();
    return entries.stream()
        .filter(entry -> nameOf.apply(entry).equals(name))
        .findFirst()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot find "
                        + what
                        + " '"
                        + name
                        + "' in servers.toml. "
                        + Optional.of(other)
                            .filter(told -> !told.isEmpty())
                            .or(() -> Nearest.to(name, names).map(Descriptions::meant))
                            .orElse(described(what, names))));
  }

  private static String meant(String near) {
    return "Did you mean '" + near + "'?";
  }

  private static String described(String what, List<String> names) {
    return names.isEmpty()
        ? "Describe it there in [" + what + ".NAME]"
        : "Described there: " + String.join(", ", names);
  }
}
