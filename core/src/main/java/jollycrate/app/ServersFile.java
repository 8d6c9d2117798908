package jollycrate.app;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** Reads {@code servers.toml}. */
public final class ServersFile {
  /** Its name. */
  public static final String NAME = "servers.toml";

  /** Where the HTTP listener binds when nothing is said. */
  public static final String LOOPBACK = "127.0.0.1";

  /** What the name of a server looks like, as a regular expression. */
  public static final String NAME_FORM = "[A-Za-z0-9][A-Za-z0-9_-]*";

  static final String HOST = "host";

  private ServersFile() {}

  /**
   * Every server described in a file.
   *
   * @throws ProblemsException with everything that is wrong in it
   */
  public static List<ServerEntry> read(Path path) {
    return read(TomlFile.parse(path), path);
  }

  /**
   * Every machine described in a file.
   *
   * @throws ProblemsException with everything that is wrong in it
   */
  public static List<HostEntry> hosts(Path path) {
    read(path);
    TomlFile file = TomlFile.parse(path);
    return HostEntry.all(file.root(List.of()).section(HOST), path.toAbsolutePath().getParent());
  }

  /** The same of a text that is to stand there. */
  static List<ServerEntry> read(Path path, String text) {
    return read(TomlFile.parse(path, text), path);
  }

  /**
   * Every value that is written for a server, with its key inside the server's table.
   *
   * @throws ProblemsException with everything that is wrong in the file
   */
  public static List<Written> written(Path path, String name) {
    TomlFile file = TomlFile.parse(path);
    read(file, path);
    String table = "server." + name + ".";
    return file.written().stream()
        .filter(value -> value.key().startsWith(table))
        .map(value -> value.in(value.key().substring(table.length())))
        .toList();
  }

  private static List<ServerEntry> read(TomlFile file, Path path) {
    Section root = file.root(List.of());
    Section servers = root.section("server");
    Set<String> hosts = root.section(HOST).keys();
    List<ServerEntry> entries = new ArrayList<>();
    for (String name : servers.keys()) {
      Section section = servers.section(name);
      if (!section.isEmpty()) {
        ServerEntry entry = ServerSection.read(name, section, path.toAbsolutePath().getParent());
        entry
            .host()
            .filter(host -> !hosts.contains(host))
            .ifPresent(
                host ->
                    section.problem(
                        HOST, "there is no [host." + host + "]", Section.fixFor(host, hosts)));
        entries.stream()
            .filter(other -> other.host().equals(entry.host()))
            .filter(other -> other.folder().equals(entry.folder()))
            .forEach(
                other ->
                    section.problem(
                        "folder",
                        "it is the folder of '" + other.name() + "' too",
                        "Give its own"));
        entries.add(entry);
      }
    }
    HostEntry.all(root.section(HOST), path.toAbsolutePath().getParent());
    ownValuesAreKnown(root.section(ApplicationFile.FOR), servers.keys());
    root.end();
    file.throwProblems();
    return entries;
  }

  /** What stands there for an application is read with its description; its tables are known. */
  private static void ownValuesAreKnown(Section own, Set<String> servers) {
    for (String server : own.keys()) {
      if (!servers.contains(server)) {
        own.problem(server, "there is no [server." + server + "]", Section.fixFor(server, servers));
      }
      Section applications = own.section(server);
      for (String application : applications.keys()) {
        Section values = applications.section(application);
        ApplicationFile.OWN.forEach(values::has);
        values.end();
      }
    }
  }
}
