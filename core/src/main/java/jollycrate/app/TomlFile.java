package jollycrate.app;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.file.IoReason;
import jollycrate.file.SmallFile;
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
  private final Map<String, Written> written = new LinkedHashMap<>();

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
    return parse(path, textOf(path));
  }

  /** The same of a text that stands there, or is to. */
  static TomlFile parse(Path path, String text) {
    TomlFile file = new TomlFile(path, TomlParsing.of(path, text));
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
      return StandardCharsets.UTF_8
          .newDecoder()
          .decode(ByteBuffer.wrap(SmallFile.bytes(path, MOST_BYTES)))
          .toString();
    } catch (CharacterCodingException e) {
      throw first(path, "not UTF-8 text");
    } catch (IOException e) {
      throw first(path, "cannot be read: " + IoReason.of(e));
    }
  }

  private static ProblemsException first(Path path, String message) {
    return new ProblemsException(List.of(new Problem(path, 1, 1, message, "")));
  }

  /** The whole file, with per-server values laid over it, those that count first. */
  Section root(List<Layer> own) {
    List<Layer> layers = new ArrayList<>(own);
    layers.add(new Layer(this, content));
    return Section.root(layers);
  }

  /** The table under names that may hold dots; empty when there is none. */
  Optional<Layer> table(String... names) {
    Object found = content;
    for (String name : names) {
      found = found instanceof TomlTable table ? table.get(List.of(name)) : null;
    }
    return found instanceof TomlTable table
        ? Optional.of(new Layer(this, table))
        : Optional.empty();
  }

  /** A value was read that counts. */
  void wrote(Written value) {
    written.putIfAbsent(value.key(), value);
  }

  /** Every value that was read, in the order of reading. */
  List<Written> written() {
    return List.copyOf(written.values());
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
    throwProblems(List.of(this));
  }

  /** Everything that is wrong in these files, file by file. */
  static void throwProblems(List<TomlFile> files) {
    List<Problem> all = new ArrayList<>();
    for (TomlFile file : files) {
      file.problems.sort(Comparator.comparingInt(Problem::line).thenComparingInt(Problem::column));
      all.addAll(file.problems);
    }
    if (!all.isEmpty()) {
      throw new ProblemsException(all);
    }
  }
}
