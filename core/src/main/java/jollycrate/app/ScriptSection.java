package jollycrate.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Reads {@code [[before]]}. */
final class ScriptSection {
  private static final Duration USUALLY_WITHIN = Duration.ofMinutes(5);
  private static final String SQL = "sql";
  private static final String RUN = "run";
  private static final String FILES = "files";
  private static final String UNDO = "undo";
  private static final String SPLIT_AT = "split-at";
  private static final String SOURCE = "source";
  private static final int MOST_NAME = 200;

  private final Section section;
  private final Path folder;

  /**
   * @param folder of the file in which it stands
   */
  ScriptSection(Section section, Path folder) {
    this.section = section;
    this.folder = folder;
  }

  /** Data sources with what is done to their databases before a release takes its place. */
  static List<DataSource> applied(List<Section> sections, Path folder, List<DataSource> sources) {
    List<DataSource> applied = new ArrayList<>(sources);
    for (Section section : sections) {
      new ScriptSection(section, folder).read(applied);
    }
    return List.copyOf(applied);
  }

  private void read(List<DataSource> sources) {
    List<Script> scripts = scripts();
    Optional<String> source = DataSourceSection.named(section, SOURCE, sources);
    section.end();
    for (int i = 0; i < sources.size(); i++) {
      DataSource one = sources.get(i);
      if (source.filter(one.jndiName()::equals).isPresent()) {
        List<Script> all = new ArrayList<>(one.scripts());
        for (Script script : scripts) {
          mustBeNew(script, all);
          all.add(script);
        }
        sources.set(i, one.applying(all));
      }
    }
  }

  private void mustBeNew(Script script, List<Script> known) {
    if (known.stream().anyMatch(other -> other.name().equals(script.name()))) {
      section.problem(
          "name",
          "'" + script.name() + "' is written twice: it would count as applied",
          "Write it once, or give each a 'name' of its own");
    }
  }

  private List<Script> scripts() {
    Duration within = section.duration("within").orElse(USUALLY_WITHIN);
    boolean sql = section.has(SQL);
    if (sql == section.has(RUN)) {
      section.missing(SQL, "Write either sql = \"db/001.sql\", or run = [\"sh\", \"db/move.sh\"]");
    }
    return sql ? statements(within) : List.of(command(within));
  }

  private List<Script> statements(Duration within) {
    if (section.has(FILES)) {
      section.problem(FILES, "only a program needs 'files'", "Remove it");
    }
    String written = section.text(SQL).orElse("");
    Optional<String> splitAt = section.text(SPLIT_AT);
    Optional<String> undo = section.text(UNDO);
    List<Path> files = files(SQL, List.of(written));
    Optional<String> name = section.text("name");
    if (name.isPresent() && files.size() > 1) {
      section.problem("name", "one name for " + files.size() + " files", "Remove 'name'");
    }
    List<Script> scripts = new ArrayList<>();
    for (Path file : files) {
      Optional<Script.Work> back =
          undo.flatMap(it -> undoing(it, written.contains("*"), file))
              .map(path -> new Script.Sql(path, splitAt));
      scripts.add(
          new Script(
              named(name.orElse(relative(file))), new Script.Sql(file, splitAt), back, within));
    }
    return scripts;
  }

  /** A file for one file; for a pattern a folder, in which a file of the same name may stand. */
  private Optional<Path> undoing(String written, boolean folderOfThem, Path file) {
    Path named = section.folder(UNDO).resolve(written).normalize();
    if (!folderOfThem) {
      return Optional.of(named);
    }
    if (!Files.isDirectory(named)) {
      section.problem(
          UNDO,
          "'" + written + "' is no folder",
          "For several files name the folder that holds a file of the same name for each");
    }
    return Optional.of(named.resolve(file.getFileName())).filter(Files::isRegularFile);
  }

  private Script command(Duration within) {
    if (section.has(SPLIT_AT)) {
      section.problem(SPLIT_AT, "only 'sql' is split into statements", "Remove it");
    }
    List<String> words = section.arguments(RUN);
    Map<String, Path> files = new TreeMap<>();
    files(FILES, section.texts(FILES)).forEach(file -> files.put(relative(file), file));
    files.keySet().stream()
        .filter(name -> name.startsWith(".."))
        .forEach(
            name ->
                section.problem(
                    FILES,
                    "'" + name + "' stands outside of the project",
                    "Move it below " + folder));
    List<String> undo = section.arguments(UNDO);
    mustBeBrought(RUN, words, files);
    mustBeBrought(UNDO, undo, files);
    return new Script(
        named(section.text("name").orElse(String.join(" ", words))),
        new Script.Command(words, files),
        undo.isEmpty() ? Optional.empty() : Optional.of(new Script.Command(undo, files)),
        within);
  }

  /** What stands beside the description does not stand where the program runs. */
  private void mustBeBrought(String key, List<String> words, Map<String, Path> files) {
    words.stream()
        .filter(word -> !word.startsWith("/") && !word.isBlank())
        .filter(word -> Files.isRegularFile(folder.resolve(word)))
        .filter(word -> !files.containsKey(Path.of(word).normalize().toString()))
        .forEach(
            word ->
                section.problem(
                    key,
                    "'" + word + "' is not there where this runs",
                    "Have it brought there: files = [\"" + word + "\"]"));
  }

  private String named(String name) {
    if (name.isBlank()
        || name.length() > MOST_NAME
        || name.chars().anyMatch(Character::isISOControl)) {
      section.problem(
          "name", "'" + name + "' is no name", "Use 1 to " + MOST_NAME + " characters in one line");
    }
    return name;
  }

  /** The same on every machine that has the project. */
  private String relative(Path file) {
    return folder.toAbsolutePath().normalize().relativize(file).toString();
  }

  private List<Path> files(String key, List<String> written) {
    List<Path> files = new ArrayList<>();
    for (String one : written) {
      try {
        List<Path> found =
            one.contains("*")
                ? FilePattern.files(section.folder(key).normalize(), one)
                : List.of(section.folder(key).resolve(one).normalize());
        found.forEach(file -> mustBeFile(key, file));
        files.addAll(found);
        if (found.isEmpty()) {
          section.problem(key, "no file matches '" + one + "'", "Fix it, or write the first one");
        }
      } catch (NoSuchFileException e) {
        section.problem(
            key, "there is no folder '" + e.getFile() + "'", "Make it, or fix the name");
      } catch (IOException | IllegalArgumentException e) {
        section.problem(key, "'" + one + "' cannot be searched: " + e.getMessage(), "Fix it");
      }
    }
    return files;
  }

  private void mustBeFile(String key, Path file) {
    if (!Files.isRegularFile(file)) {
      section.problem(key, "there is no file '" + file + "'", "Write it, or fix the name");
    }
  }
}
