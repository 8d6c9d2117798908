package jollycrate.app;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.tomlj.Toml;

/** Reads {@code servers.toml} and adds entries to it. */
public final class ServersFile {
  /** Its name. */
  public static final String NAME = "servers.toml";

  /** Where the HTTP listener binds when nothing is said. */
  public static final String LOOPBACK = "127.0.0.1";

  /** Most heap when nothing is said. */
  public static final String MEMORY = "256m";

  private static final String NAME_FORM = "[A-Za-z0-9][A-Za-z0-9_-]*";

  private ServersFile() {}

  /**
   * Every server described in a file.
   *
   * @throws ProblemsException with everything that is wrong in it
   */
  public static List<ServerEntry> read(Path path) {
    TomlFile file = TomlFile.parse(path);
    Section root = file.root(Optional.empty());
    Section servers = root.section("server");
    List<ServerEntry> entries = new ArrayList<>();
    for (String name : servers.keys()) {
      Section section = servers.section(name);
      if (!section.isEmpty()) {
        ServerEntry entry = entry(name, section, path.toAbsolutePath().getParent());
        entries.stream()
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
    root.end();
    file.throwProblems();
    return entries;
  }

  private static ServerEntry entry(String name, Section section, Path folder) {
    if (!name.matches(NAME_FORM)) {
      section.missing("folder", "'" + name + "' is no name: use letters, digits, _ and - only");
    }
    if (!section.has("folder")) {
      section.missing("folder", "Name the server's own folder");
    }
    if (!section.has("http")) {
      section.missing("http", "Give its HTTP port, like http = 8081");
    }
    String memory = section.text("memory").orElse(MEMORY);
    if (!memory.matches("\\d+[kKmMgG]")) {
      section.problem("memory", "'" + memory + "' is no size", "Write it like \"256m\" or \"1g\"");
    }
    Optional<Integer> http = section.number("http", 1, 65_535).map(Long::intValue);
    Optional<Integer> admin = section.number("admin", 1, 65_535).map(Long::intValue);
    if (http.isPresent() && http.equals(admin)) {
      section.problem("admin", "'http' and 'admin' are the same port", "Give another port");
    }
    if (!section.has("admin") && !section.has("installation")) {
      section.missing("admin", "Give the practice server an admin port, like admin = 8082");
    }
    ServerEntry entry =
        new ServerEntry(
            name,
            folder.resolve(section.text("folder").orElse("unnamed")).normalize(),
            section.text("installation").map(at -> folder.resolve(at).normalize()),
            http.orElse(0),
            admin,
            section.text("address").orElse(LOOPBACK),
            memory,
            section.text("java").map(at -> folder.resolve(at).normalize()),
            section.texts("env"));
    section.end();
    return entry;
  }

  /**
   * Adds an entry behind everything that stands there; the rest stays byte for byte.
   *
   * @throws ProblemsException when the file is wrong already
   */
  public static void add(Path path, ServerEntry entry) throws IOException {
    String text =
        Files.exists(path)
            ? Files.readString(path)
            : "# The servers that applications are delivered to.\n";
    String gap = text.isEmpty() || text.endsWith("\n") ? "\n" : "\n\n";
    Path beside = path.resolveSibling("." + path.getFileName() + ".part");
    Files.writeString(beside, text + gap + written(path, entry), StandardCharsets.UTF_8);
    try {
      read(beside);
      if (Files.exists(path)) {
        Files.setPosixFilePermissions(beside, Files.getPosixFilePermissions(path));
      }
      Files.move(
          beside,
          Files.exists(path) ? path.toRealPath() : path,
          StandardCopyOption.ATOMIC_MOVE,
          StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(beside);
    }
  }

  private static String written(Path path, ServerEntry entry) {
    StringBuilder toml = new StringBuilder("[server." + entry.name() + "]\n");
    line(toml, "folder", relative(path, entry.folder()));
    entry.installation().ifPresent(at -> line(toml, "installation", relative(path, at)));
    toml.append("http = ").append(entry.http()).append('\n');
    entry.admin().ifPresent(port -> toml.append("admin = ").append(port).append('\n'));
    if (!entry.address().equals(LOOPBACK)) {
      line(toml, "address", entry.address());
    }
    if (!entry.memory().equals(MEMORY)) {
      line(toml, "memory", entry.memory());
    }
    entry.java().ifPresent(at -> line(toml, "java", at.toString()));
    return toml.toString();
  }

  private static void line(StringBuilder toml, String key, String value) {
    toml.append(key).append(" = \"").append(Toml.tomlEscape(value)).append("\"\n");
  }

  private static String relative(Path file, Path target) {
    Path folder = file.toAbsolutePath().getParent();
    return target.startsWith(folder) ? folder.relativize(target).toString() : target.toString();
  }
}
