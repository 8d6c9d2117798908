package jollycrate.app;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.tomlj.TomlTable;

/** Reads {@code jolly.toml}. */
public final class ApplicationFile {
  /** Its name. */
  public static final String NAME = "jolly.toml";

  private static final String NAME_FORM = "[A-Za-z0-9][A-Za-z0-9._-]*";
  private static final int MOST_CONNECTIONS = 10;

  private final TomlFile file;
  private final Path folder;
  private final Section root;

  private ApplicationFile(TomlFile file, Optional<TomlTable> own) {
    this.file = file;
    this.folder = file.path().toAbsolutePath().getParent();
    this.root = file.root(own);
  }

  /**
   * Reads a file as it stands for one server.
   *
   * @param server whose own values lie over the common ones; empty for none
   * @throws ProblemsException with everything that is wrong in it
   */
  public static Application read(Path path, Optional<String> server) {
    TomlFile file = TomlFile.parse(path);
    Optional<TomlTable> own = server.flatMap(name -> file.table("for", name));
    return new ApplicationFile(file, own).read();
  }

  /** The nearest file of that name, in a folder or above it. */
  public static Optional<Path> findUpwards(Path folder, String name) {
    for (Path at = folder.toAbsolutePath().normalize(); at != null; at = at.getParent()) {
      if (Files.isRegularFile(at.resolve(name))) {
        return Optional.of(at.resolve(name));
      }
    }
    return Optional.empty();
  }

  private Application read() {
    Optional<PackDescription> pack = pack();
    Optional<Path> artifact = root.text("artifact").map(folder::resolve);
    if (pack.isPresent() && artifact.isPresent()) {
      root.problem("artifact", "both 'artifact' and [pack] are given", "Keep one of them");
    } else if (pack.isEmpty() && artifact.isEmpty()) {
      root.missing("artifact", "Name a finished artifact, or describe in [pack] how to make it");
    }
    Section app = root.section("app");
    Optional<String> path = app.text("path");
    path.map(ContextPath::fault)
        .filter(fault -> !fault.isEmpty())
        .ifPresent(
            fault ->
                app.problem(
                    "path",
                    "'" + path.get() + "' is no context path: " + fault,
                    "Write it like \"/spokes\", or \"/\" for the root"));
    Duration startsWithin = app.duration("starts-within").orElse(Application.STARTS_WITHIN);
    app.end();
    List<User> users = users();
    Application application =
        new Application(
            Optional.of(file.path()),
            name(),
            version(pack.isPresent()),
            pack,
            artifact,
            path.map(ContextPath::normal),
            startsWithin,
            dataSources(),
            users,
            roles(users),
            checks(users));
    ownValuesAreKnown();
    root.end();
    file.throwProblems();
    return application;
  }

  private String name() {
    Optional<String> name = root.text("name");
    if (name.isEmpty() && !root.has("name")) {
      root.missing("name", "Give the application a name, like name = \"spokes\"");
    } else if (name.isPresent() && !name.get().matches(NAME_FORM)) {
      root.problem("name", "'" + name.get() + "' is no name", "Use letters, digits and . _ - only");
    }
    return name.orElse("unnamed");
  }

  private Optional<String> version(boolean needed) {
    Optional<String> version = root.text("version");
    if (needed && !root.has("version")) {
      root.missing("version", "Say which version is packed, like version = \"1.4.0\"");
    } else if (version.isPresent() && !version.get().matches(NAME_FORM)) {
      root.problem(
          "version",
          "'" + version.get() + "' is no version",
          "Use letters, digits and . _ - only, beginning with a letter or digit");
    }
    return version;
  }

  private Optional<PackDescription> pack() {
    Section pack = root.section("pack");
    if (pack.isEmpty()) {
      return Optional.empty();
    }
    String shape = pack.text("shape").orElse("war");
    if (!shape.equals("war")) {
      pack.problem("shape", "shape \"" + shape + "\" is not known", "Write shape = \"war\"");
    }
    List<String> libs = pack.texts("libs");
    String target =
        pack.text("to")
            .orElse(
                "crate/"
                    + root.text("name").orElse("app")
                    + "-"
                    + root.text("version").orElse("0")
                    + ".war");
    PackDescription description =
        new PackDescription(
            paths(pack.texts("classes")),
            paths(pack.texts("web")),
            libs.stream().flatMap(pattern -> matching(pack, pattern).stream()).toList(),
            patterns(pack),
            folder.resolve(target));
    if (description.classes().isEmpty() && description.web().isEmpty()) {
      pack.missing("classes", "Name the folder of compiled classes, or a 'web' folder");
    }
    pack.end();
    return Optional.of(description);
  }

  private List<Path> paths(List<String> written) {
    return written.stream().map(folder::resolve).toList();
  }

  private static List<String> patterns(Section pack) {
    List<String> patterns = pack.texts("leave-out");
    for (String pattern : patterns) {
      try {
        FileSystems.getDefault().getPathMatcher("glob:" + pattern);
      } catch (IllegalArgumentException e) {
        pack.problem("leave-out", "'" + pattern + "' is no pattern: " + e.getMessage(), "");
        return List.of();
      }
    }
    return patterns;
  }

  private List<Path> matching(Section pack, String pattern) {
    Path absolute = folder.resolve(pattern.contains("*") ? "x" : pattern).normalize();
    if (!pattern.contains("*")) {
      if (!Files.isRegularFile(absolute)) {
        pack.problem("libs", "there is no file '" + pattern + "'", "");
      }
      return List.of(absolute);
    }
    Path base = folder.resolve(pattern.substring(0, pattern.indexOf('*')) + "x").getParent();
    if (!Files.isDirectory(base)) {
      pack.problem("libs", "there is no folder '" + base + "'", "Build first, or mend 'libs'");
      return List.of();
    }
    try (Stream<Path> files = Files.walk(base)) {
      PathMatcher matcher =
          FileSystems.getDefault().getPathMatcher("glob:" + folder.resolve(pattern).normalize());
      List<Path> found =
          files
              .map(Path::normalize)
              .filter(Files::isRegularFile)
              .filter(matcher::matches)
              .sorted()
              .toList();
      if (found.isEmpty()) {
        pack.problem("libs", "no file matches '" + pattern + "'", "");
      }
      return found;
    } catch (IOException | IllegalArgumentException e) {
      pack.problem("libs", "'" + pattern + "' cannot be searched: " + e.getMessage(), "");
      return List.of();
    }
  }

  private List<DataSource> dataSources() {
    Section all = root.section("datasource");
    List<DataSource> sources = new ArrayList<>();
    for (String name : all.keys()) {
      sources.add(dataSource(name, all.section(name)));
    }
    return sources;
  }

  private DataSource dataSource(String name, Section section) {
    Optional<String> url = section.text("url");
    if (url.isEmpty() && !section.has("url")) {
      section.missing("url", "Give its JDBC URL");
    } else if (url.isPresent() && !url.get().startsWith("jdbc:")) {
      section.problem("url", "'" + url.get() + "' is no JDBC URL", "It begins with \"jdbc:\"");
    }
    Optional<String> driver = section.text("driver");
    if (driver.isEmpty() && !section.has("driver")) {
      section.missing("driver", "Name the archive that holds the JDBC driver");
    }
    Section pool = section.section("pool");
    long most = pool.number("max", 1, 10_000).orElse((long) MOST_CONNECTIONS);
    Duration wait = pool.duration("wait").orElse(Duration.ofSeconds(5));
    pool.end();
    DataSource source =
        new DataSource(
            name,
            url.orElse(""),
            section.text("user").orElse(""),
            reference(section, "password"),
            folder.resolve(driver.orElse("unnamed")).normalize(),
            section.text("driver-class"),
            (int) most,
            wait);
    section.end();
    return source;
  }

  private Optional<Reference> reference(Section section, String key) {
    Optional<String> text = section.text(key);
    Optional<Reference> reference = text.flatMap(written -> Reference.of(written, folder));
    if (text.isPresent() && reference.isEmpty()) {
      section.problem(
          key,
          "a password must not stand in this file",
          "Write where it stands: \"env:NAME\" or \"file:PATH\"");
    }
    return reference;
  }

  private List<User> users() {
    Section section = root.section("users");
    List<User> users = new ArrayList<>();
    for (String name : section.keys()) {
      boolean table = section.value(name).filter(TomlTable.class::isInstance).isPresent();
      boolean there = table || section.value(name).filter("there"::equals).isPresent();
      Optional<Reference> password = Optional.empty();
      if (table) {
        Section inner = section.section(name);
        password = reference(inner, "there");
        inner.end();
      } else if (!there) {
        password = reference(section, name);
      }
      users.add(new User(name, there, password));
    }
    return users;
  }

  private Map<String, List<String>> roles(List<User> users) {
    Section section = root.section("roles");
    List<String> names = users.stream().map(User::name).toList();
    Map<String, List<String>> roles = new LinkedHashMap<>();
    for (String role : section.keys()) {
      List<String> members = section.texts(role);
      members.stream()
          .filter(member -> !names.contains(member))
          .forEach(
              member ->
                  section.problem(
                      role,
                      "role '" + role + "' has a member '" + member + "' who is not in [users]",
                      names.isEmpty() ? "Add [users]" : Section.mendFor(member, names)));
      roles.put(role, members);
    }
    return roles;
  }

  private List<Check> checks(List<User> users) {
    return root.sections("check").stream()
        .map(section -> new CheckSection(section, users).read())
        .toList();
  }

  private void ownValuesAreKnown() {
    Section own = root.section("for");
    for (String server : own.keys()) {
      Section values = own.section(server);
      List.of("app", "datasource", "users", "roles").forEach(values::has);
      values.end();
    }
  }
}
