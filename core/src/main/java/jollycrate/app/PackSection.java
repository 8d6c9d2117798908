package jollycrate.app;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.pack.PackRequest;
import jollycrate.pack.Shape;
import org.tomlj.TomlTable;

/** Reads {@code [pack]}, one artifact, or {@code [pack.NAME]}, several over common values. */
final class PackSection {
  private static final String CLASS_NAME =
      "[\\p{L}_$][\\p{L}\\p{N}_$]*(\\.[\\p{L}_$][\\p{L}\\p{N}_$]*){0,60}";
  private static final Set<String> KEYS =
      Set.of(
          "shape",
          "classes",
          "web",
          "libs",
          "standalone",
          "main",
          "packages",
          "leave-out",
          "keep",
          "settings-file",
          "fallback",
          "fresh-pages",
          "servlet-api",
          "to");
  private static final String NAME_FORM = "[A-Za-z0-9][A-Za-z0-9._-]*";

  private final Section pack;
  private final Path folder;
  private final String artifactName;
  private final Optional<String> delivered;

  /**
   * @param artifactName name and version of the application
   * @param delivered name of the table whose artifact is delivered
   */
  PackSection(Section pack, Path folder, String artifactName, Optional<String> delivered) {
    this.pack = pack;
    this.folder = folder;
    this.artifactName = artifactName;
    this.delivered = delivered;
  }

  List<PackDescription> read() {
    if (pack.isEmpty()) {
      return List.of();
    }
    Set<String> names = pack.keysOf(TomlTable.class);
    if (names.isEmpty()) {
      return List.of(read(pack, ""));
    }
    List<PackDescription> all = new ArrayList<>();
    for (String name : names) {
      if (KEYS.contains(name)) {
        pack.problem(
            name, "'" + name + "' is a key of [pack]", "Give the table [pack.NAME] another name");
        continue;
      }
      if (!name.matches(NAME_FORM)) {
        pack.problem(name, "'" + name + "' is no name", "Use letters, digits and . _ - only");
      }
      Section section = pack.over(name);
      names.forEach(section::has);
      all.add(read(section, name));
    }
    return all;
  }

  private PackDescription read(Section section, String name) {
    Shape shape = shape(section);
    PackDescription description =
        new PackDescription(
            name,
            shape,
            paths(section, "classes"),
            paths(section, "web"),
            section.has("libs") ? Optional.of(libraries(section, "libs")) : Optional.empty(),
            libraries(section, "standalone"),
            main(section),
            new PackRequest.Choice(
                packages(section),
                patterns(section, "leave-out"),
                patterns(section, "keep"),
                section.truth("fresh-pages")),
            settingsFile(section),
            fallback(section, shape),
            javax(section),
            target(section, shape, name));
    boolean something = !description.classes().isEmpty() || !description.web().isEmpty();
    if (shape == Shape.WEB && !section.has("web")) {
      section.missing("web", "Name the folder of built pages");
    } else if (!something) {
      section.missing("classes", "Name the folder of compiled classes, or a 'web' folder");
    }
    section.end();
    return description;
  }

  private static Shape shape(Section section) {
    Optional<String> text = section.text("shape");
    Optional<Shape> shape = text.flatMap(Shape::of);
    if (text.isPresent() && shape.isEmpty()) {
      section.problem(
          "shape",
          "shape \"" + text.get() + "\" is not known",
          "Known: " + String.join(", ", Shape.keys()));
    }
    return shape.orElse(Shape.WAR);
  }

  private Path target(Section section, Shape shape, String name) {
    boolean plain = name.isEmpty() || delivered.filter(name::equals).isPresent();
    String file = artifactName + (plain ? "" : "-" + name) + "." + shape.ending();
    Optional<String> told = section.text("to");
    if (told.isPresent() && !told.get().endsWith("." + shape.ending())) {
      section.problem(
          "to",
          "'" + told.get() + "' does not end with ." + shape.ending(),
          "What is packed as " + shape.key() + " is a ." + shape.ending() + " file");
    }
    return folder.resolve(told.orElse("packed/" + file)).normalize();
  }

  private List<Path> paths(Section section, String key) {
    return section.texts(key).stream().map(folder::resolve).map(Path::normalize).toList();
  }

  private LibraryPatterns libraries(Section section, String key) {
    return new LibraryPatterns(section.texts(key), folder, section.place(key), key);
  }

  private static Optional<String> main(Section section) {
    Optional<String> main = section.text("main");
    if (main.isPresent() && !main.get().matches(CLASS_NAME)) {
      section.problem(
          "main", "'" + main.get() + "' is no class name", "Write it with dots, like shop.Main");
    }
    return main;
  }

  private static List<String> packages(Section section) {
    List<String> packages = section.texts("packages");
    packages.stream()
        .filter(name -> !name.matches(CLASS_NAME))
        .forEach(
            name ->
                section.problem(
                    "packages",
                    "'" + name + "' is no package name",
                    "Write it with dots, like shop.desk; packages below it are included"));
    return packages;
  }

  private static Optional<String> settingsFile(Section section) {
    Optional<String> file = section.text("settings-file");
    if (file.isPresent() && (!file.get().endsWith(".json") || file.get().startsWith("/"))) {
      section.problem(
          "settings-file",
          "'" + file.get() + "' is no JSON file inside the artifact",
          "Write its path from the root, like \"settings.json\"");
    }
    return file;
  }

  private static Optional<String> fallback(Section section, Shape shape) {
    Optional<String> page = section.text("fallback");
    if (page.isPresent() && shape != Shape.WEB) {
      section.problem("fallback", "only a front end has one", "Write shape = \"front-end\"");
    } else if (page.isPresent() && !page.get().matches("(?!/)[^?#]+\\.html?")) {
      section.problem(
          "fallback",
          "'" + page.get() + "' is no page inside the artifact",
          "Write its path from the root, like \"index.html\"");
    }
    return page;
  }

  private static boolean javax(Section section) {
    Optional<String> text = section.text("servlet-api");
    if (text.isPresent() && !List.of("javax", "jakarta").contains(text.get())) {
      section.problem(
          "servlet-api", "'" + text.get() + "' is not known", "Write \"jakarta\" or \"javax\"");
    }
    return text.filter("javax"::equals).isPresent();
  }

  private static List<String> patterns(Section section, String key) {
    List<String> patterns = section.texts(key);
    for (String pattern : patterns) {
      try {
        FileSystems.getDefault().getPathMatcher("glob:" + pattern);
      } catch (IllegalArgumentException e) {
        section.problem(key, "'" + pattern + "' is no pattern: " + e.getMessage(), "");
        return List.of();
      }
    }
    return patterns;
  }
}
