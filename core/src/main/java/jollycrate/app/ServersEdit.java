package jollycrate.app;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.tomlj.Toml;

/** Adds entries to {@code servers.toml} and takes them out; the rest of it stays as it is. */
public final class ServersEdit {
  private ServersEdit() {}

  /**
   * Adds an entry behind everything that stands there; the rest stays byte for byte.
   *
   * @throws ProblemsException when the file is wrong already
   */
  public static void add(Path path, ServerEntry entry) throws IOException {
    add(path, written(path, entry));
  }

  /**
   * Adds a machine behind everything that stands there; the rest stays byte for byte.
   *
   * @throws ProblemsException when the file is wrong already
   */
  public static void add(Path path, HostEntry entry) throws IOException {
    StringBuilder toml = new StringBuilder("[host." + entry.name() + "]\n");
    line(toml, "ssh", entry.ssh());
    entry.config().ifPresent(config -> line(toml, "config", relative(path, config)));
    add(path, toml.toString());
  }

  private static void add(Path path, String table) throws IOException {
    String text =
        Files.exists(path)
            ? Files.readString(path)
            : "# The servers that applications are delivered to.\n";
    String gap = text.isEmpty() || text.endsWith("\n") ? "\n" : "\n\n";
    replace(path, text + gap + table, entries -> true);
  }

  /**
   * Takes an entry out; the rest stays byte for byte.
   *
   * @throws NotDescribedException when that cannot be done without touching others
   */
  public static void remove(Path path, String name) throws IOException {
    List<ServerEntry> others =
        ServersFile.read(path).stream().filter(entry -> !entry.name().equals(name)).toList();
    Pattern own = ServerTable.header(name, "[.\\]]");
    StringBuilder kept = new StringBuilder();
    boolean inside = false;
    for (String line : Files.readString(path).split("(?<=\n)")) {
      inside = line.stripLeading().startsWith("[") ? own.matcher(line).matches() : inside;
      kept.append(inside ? "" : line);
    }
    if (!replace(path, kept.toString(), others::equals)) {
      throw new NotDescribedException(
          "Cannot take server '"
              + name
              + "' out of "
              + path
              + ": it is not written as a table [server."
              + name
              + "] of its own. Take it out by hand");
    }
  }

  /**
   * The text of the file with other values for a server; the rest stays byte for byte.
   *
   * @param values by key, as people write them; an empty one takes the key out
   * @return the text, and the server as it is described with it
   * @throws ProblemsException with everything that would be wrong
   * @throws NotDescribedException when a value is not written so that it could be replaced
   */
  public static Changed changed(Path path, String name, Map<String, String> values)
      throws IOException {
    String before = Files.readString(path);
    String text = changed(path, before, name, values);
    List<ServerEntry> entries = ServersFile.read(path, text);
    if (!others(entries, name).equals(others(ServersFile.read(path), name))) {
      throw byHand(path, name, "its values");
    }
    return new Changed(
        text,
        entries.stream().filter(entry -> entry.name().equals(name)).findFirst().orElseThrow());
  }

  /** A text with the entry that it describes. */
  public record Changed(String text, ServerEntry entry) {}

  private static List<ServerEntry> others(List<ServerEntry> entries, String name) {
    return entries.stream().filter(entry -> !entry.name().equals(name)).toList();
  }

  private static String changed(Path path, String text, String name, Map<String, String> values) {
    try {
      ServerTable table = ServerTable.of(text, name);
      values.forEach(table::set);
      return table.text();
    } catch (ServerTable.NotWrittenSo e) {
      throw byHand(path, name, e.getMessage());
    }
  }

  private static NotDescribedException byHand(Path path, String name, String what) {
    return new NotDescribedException(
        "Cannot change server '"
            + name
            + "' in "
            + path
            + ": "
            + what
            + " is not written on a line of its own in a table [server."
            + name
            + "]. Change it there by hand, then 'jolly server change "
            + name
            + "' does the rest");
  }

  /** Puts a text in place of the file, unless what it describes is not what was meant. */
  private static boolean replace(Path path, String text, Predicate<List<ServerEntry>> right)
      throws IOException {
    Path beside = path.resolveSibling("." + path.getFileName() + ".part");
    Files.writeString(beside, text, StandardCharsets.UTF_8);
    try {
      if (!right.test(ServersFile.read(beside))) {
        return false;
      }
      if (Files.exists(path)) {
        Files.setPosixFilePermissions(beside, Files.getPosixFilePermissions(path));
      }
      Files.move(
          beside,
          Files.exists(path) ? path.toRealPath() : path,
          StandardCopyOption.ATOMIC_MOVE,
          StandardCopyOption.REPLACE_EXISTING);
      return true;
    } finally {
      Files.deleteIfExists(beside);
    }
  }

  private static String written(Path path, ServerEntry entry) {
    StringBuilder toml = new StringBuilder("[server." + entry.name() + "]\n");
    entry.host().ifPresent(host -> line(toml, "host", host));
    boolean here = entry.host().isEmpty();
    line(toml, "folder", here ? relative(path, entry.folder()) : entry.folder().toString());
    entry
        .installation()
        .ifPresent(at -> line(toml, "installation", here ? relative(path, at) : at.toString()));
    if (entry.javax() && here) {
      line(toml, "servlet-api", "javax");
    }
    entry.kind().ifPresent(kind -> line(toml, "kind", kind));
    toml.append("http = ").append(entry.ports().http()).append('\n');
    entry.ports().admin().ifPresent(port -> toml.append("admin = ").append(port).append('\n'));
    if (!entry.ports().address().equals(ServersFile.LOOPBACK)) {
      line(toml, "address", entry.ports().address());
    }
    if (!entry.jvm().memory().equals(Jvm.MEMORY)) {
      line(toml, "memory", entry.jvm().memory());
    }
    entry.jvm().home().ifPresent(at -> line(toml, "java", at.toString()));
    if (!entry.jvm().options().isEmpty()) {
      words(toml, "java-options", entry.jvm().options());
    }
    entry.steering().log().ifPresent(log -> line(toml, "log", log));
    entry
        .steering()
        .unit()
        .ifPresent(unit -> line(toml, unit.ofUser() ? "user-unit" : "unit", unit.name()));
    if (!entry.steering().start().isEmpty()) {
      words(toml, "start", entry.steering().start());
    }
    return toml.toString();
  }

  private static void words(StringBuilder toml, String key, List<String> words) {
    toml.append(key)
        .append(
            words.stream()
                .map(word -> "\"" + Toml.tomlEscape(word) + "\"")
                .collect(Collectors.joining(", ", " = [", "]\n")));
  }

  private static void line(StringBuilder toml, String key, String value) {
    toml.append(key).append(" = \"").append(Toml.tomlEscape(value)).append("\"\n");
  }

  private static String relative(Path file, Path target) {
    Path folder = file.toAbsolutePath().getParent();
    return target.startsWith(folder) ? folder.relativize(target).toString() : target.toString();
  }
}
