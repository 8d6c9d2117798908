package jollycrate.app;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
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
    String text =
        Files.exists(path)
            ? Files.readString(path)
            : "# The servers that applications are delivered to.\n";
    String gap = text.isEmpty() || text.endsWith("\n") ? "\n" : "\n\n";
    replace(path, text + gap + written(path, entry), entries -> true);
  }

  /**
   * Takes an entry out; the rest stays byte for byte.
   *
   * @throws NotDescribedException when that cannot be done without touching others
   */
  public static void remove(Path path, String name) throws IOException {
    List<ServerEntry> others =
        ServersFile.read(path).stream().filter(entry -> !entry.name().equals(name)).toList();
    String header = "\\s*\\[\\s*server\\s*\\.\\s*(?:NAME|\"NAME\"|'NAME')\\s*[.\\]].*";
    Pattern own = Pattern.compile(header.replace("NAME", Pattern.quote(name)), Pattern.DOTALL);
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
    line(toml, "folder", relative(path, entry.folder()));
    entry.installation().ifPresent(at -> line(toml, "installation", relative(path, at)));
    if (entry.service()) {
      toml.append("service = true\n");
    }
    toml.append("http = ").append(entry.ports().http()).append('\n');
    entry.ports().admin().ifPresent(port -> toml.append("admin = ").append(port).append('\n'));
    if (!entry.ports().address().equals(ServersFile.LOOPBACK)) {
      line(toml, "address", entry.ports().address());
    }
    if (!entry.jvm().memory().equals(Jvm.MEMORY)) {
      line(toml, "memory", entry.jvm().memory());
    }
    entry.jvm().home().ifPresent(at -> line(toml, "java", at.toString()));
    entry.steering().log().ifPresent(log -> line(toml, "log", log));
    if (!entry.steering().start().isEmpty()) {
      String words =
          entry.steering().start().stream()
              .map(word -> "\"" + Toml.tomlEscape(word) + "\"")
              .collect(Collectors.joining(", "));
      toml.append("start = [").append(words).append("]\n");
    }
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
