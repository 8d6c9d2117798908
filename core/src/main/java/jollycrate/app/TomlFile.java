package jollycrate.app;

import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.tomlj.Toml;
import org.tomlj.TomlArray;
import org.tomlj.TomlParseError;
import org.tomlj.TomlParseResult;
import org.tomlj.TomlPosition;
import org.tomlj.TomlTable;

/** A TOML 1.0 file under reading, with every problem found so far. */
final class TomlFile {
  private static final Pattern SLASHED =
      Pattern.compile("^\\s*\\[([\\w.-]*\\.)([\\w-]+/[\\w/-]+)]");
  private static final long MOST_BYTES = 1 << 20;

  private final Path path;
  private final TomlParseResult content;
  private final List<Problem> problems = new ArrayList<>();

  private TomlFile(Path path, TomlParseResult content) {
    this.path = path;
    this.content = content;
  }

  /**
   * Parses a file.
   *
   * @throws ProblemsException when it is not TOML, with every fault of its syntax
   */
  static TomlFile parse(Path path) {
    String text = textOf(path);
    TomlFile file = new TomlFile(path, Toml.parse(text));
    List<String> lines = text.lines().toList();
    for (TomlParseError error : file.content.errors()) {
      int line = error.position() == null ? 0 : error.position().line();
      String written = line > 0 && line <= lines.size() ? lines.get(line - 1) : "";
      file.problem(error.position(), error.getMessage(), unquoted(written));
    }
    file.throwProblems();
    file.noNul(file.content);
    file.throwProblems();
    return file;
  }

  /** What to write in place of a table whose name needs quotes. */
  private static String unquoted(String line) {
    Matcher matcher = SLASHED.matcher(line);
    return matcher.find()
        ? "Write [" + matcher.group(1) + "\"" + matcher.group(2) + "\"]: a name with / needs quotes"
        : "";
  }

  /** No path, name or argument can hold the character NUL. */
  private void noNul(TomlTable table) {
    for (String key : table.keySet()) {
      TomlPosition at = table.inputPositionOf(List.of(key));
      Object value = table.get(List.of(key));
      if (key.indexOf(0) >= 0) {
        problem(at, "a key holds the character NUL", "Take it out");
      }
      noNul(at, value);
    }
  }

  private void noNul(TomlPosition at, Object value) {
    if (value instanceof String text && text.indexOf(0) >= 0) {
      problem(at, "a text holds the character NUL", "Take it out");
    } else if (value instanceof TomlTable inner) {
      noNul(inner);
    } else if (value instanceof TomlArray array) {
      array.toList().forEach(element -> noNul(at, element));
    }
  }

  private static String textOf(Path path) {
    try {
      if (Files.size(path) > MOST_BYTES) {
        throw first(path, "larger than " + MOST_BYTES + " bytes");
      }
      return Files.readString(path, StandardCharsets.UTF_8);
    } catch (MalformedInputException e) {
      throw first(path, "not UTF-8 text");
    } catch (IOException e) {
      throw first(path, "cannot be read: " + e.getMessage());
    }
  }

  private static ProblemsException first(Path path, String message) {
    return new ProblemsException(List.of(new Problem(path, 1, 1, message, "")));
  }

  /** The whole file, with per-server values laid over it when given. */
  Section root(Optional<TomlTable> own) {
    List<TomlTable> layers = new ArrayList<>();
    own.ifPresent(layers::add);
    layers.add(content);
    return new Section(this, "", layers, TomlPosition.positionAt(1, 1));
  }

  /** The table at {@code outer.inner}, whose names may hold dots. */
  Optional<TomlTable> table(String outer, String inner) {
    return content.get(List.of(outer)) instanceof TomlTable table
            && table.get(List.of(inner)) instanceof TomlTable found
        ? Optional.of(found)
        : Optional.empty();
  }

  Path path() {
    return path;
  }

  void problem(TomlPosition position, String message, String fix) {
    Problem problem =
        new Problem(
            path,
            position == null ? 1 : position.line(),
            position == null ? 1 : position.column(),
            message,
            fix);
    if (!problems.contains(problem)) {
      problems.add(problem);
    }
  }

  void throwProblems() {
    if (!problems.isEmpty()) {
      problems.sort(Comparator.comparingInt(Problem::line).thenComparingInt(Problem::column));
      throw new ProblemsException(problems);
    }
  }
}
