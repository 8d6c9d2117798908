package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.pack.Shape;
import jollycrate.secret.Reference;
import jollycrate.secret.SecretException;

/** Reads {@code jolly.toml}. */
public final class ApplicationFile {
  /** Its name. */
  public static final String NAME = "jolly.toml";

  private static final String NAME_FORM = "[A-Za-z0-9][A-Za-z0-9._-]*";
  private static final String POM = "pom:";

  /** As DNS has it (RFC 1123, section 2.1). */
  private static final String HOST_FORM =
      "[a-z0-9]([a-z0-9-]*[a-z0-9])?(\\.[a-z0-9]([a-z0-9-]*[a-z0-9])?){0,60}";

  private static final int MOST_HOST = 253;
  private static final List<String> DEFAULT_SOURCES =
      List.of("src", "pom.xml", "build.gradle", "build.gradle.kts", "build.xml", "package.json");

  /** Table of what differs on one server. */
  static final String FOR = "for";

  /** The tables that may differ from server to server. */
  static final List<String> OWN =
      List.of(
          "app",
          "datasource",
          "env-entry",
          "users",
          "roles",
          "logins",
          "values",
          "settings",
          "program");

  private final TomlFile file;
  private final Optional<TomlFile> servers;
  private final Path folder;
  private final Section root;
  private final Function<Reference, String> values;

  private ApplicationFile(
      TomlFile file, Optional<ForServer> own, Function<Reference, String> values) {
    this.file = file;
    this.values = values;
    this.servers = own.flatMap(ForServer::file).map(TomlFile::parse);
    this.folder = file.path().toAbsolutePath().getParent();
    this.root = file.root(own.map(it -> layers(it.server())).orElse(List.of()));
  }

  /**
   * Reads a file as it stands for one server.
   *
   * @param own the server; empty for none
   * @param values what references to something that everybody may see stand for
   * @throws ProblemsException with everything that is wrong in it
   */
  public static Application read(
      Path path, Optional<ForServer> own, Function<Reference, String> values) {
    return new ApplicationFile(TomlFile.parse(path), own, values).read();
  }

  /**
   * Every value that counts for one server, in the order of reading.
   *
   * @throws ProblemsException with everything that is wrong in it
   */
  public static List<Written> written(
      Path path, ForServer own, Function<Reference, String> values) {
    ApplicationFile read = new ApplicationFile(TomlFile.parse(path), Optional.of(own), values);
    read.read();
    return read.file.written();
  }

  /** The values of one server, beside it first, then those in this file. */
  private List<Layer> layers(String server) {
    String application = file.root(List.of()).text("name").orElse("");
    List<Layer> layers = new ArrayList<>();
    servers.flatMap(it -> it.table(FOR, server, application)).ifPresent(layers::add);
    file.table(FOR, server).ifPresent(layers::add);
    return layers;
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
    Section app = root.section("app");
    Optional<String> told = app.text("pack");
    Optional<String> version = version();
    List<PackDescription> packs = packs(version, told);
    if (!packs.isEmpty() && !root.has("version")) {
      root.missing("version", "Say which version is packed, like version = \"1.4.0\"");
    }
    Optional<Path> artifact = root.text("artifact").map(folder::resolve);
    if (!packs.isEmpty() && artifact.isPresent()) {
      root.problem("artifact", "both 'artifact' and [pack] are given", "Keep one of them");
    } else if (packs.isEmpty() && artifact.isEmpty()) {
      root.missing("artifact", "Name a finished artifact, or describe in [pack] how to make it");
    }
    Optional<String> delivered = delivered(app, told, packs);
    List<DataSource> dataSources =
        ScriptSection.applied(
            root.sections("before"),
            folder,
            new DataSourceSection(root.section("datasource")).read());
    Program program = new ProgramSection(root.section("program"), dataSources).read();
    Map<String, JsonNode> settings = settings(packs, program);
    Optional<String> path = app.text("path");
    path.map(ContextPath::fault)
        .filter(fault -> !fault.isEmpty())
        .ifPresent(
            fault ->
                app.problem(
                    "path",
                    "'" + path.get() + "' is no context path: " + fault,
                    "Write it like \"/spokes\", or \"/\" for the root"));
    Optional<String> host = app.text("host").map(name -> name.toLowerCase(Locale.ROOT));
    host.filter(name -> !name.matches(HOST_FORM) || name.length() > MOST_HOST)
        .ifPresent(
            name ->
                app.problem(
                    "host",
                    "'" + name + "' is no name of a host",
                    "Write it like \"desk.spokes.example\", without port or path"));
    Duration startsWithin = app.duration("starts-within").orElse(Context.STARTS_WITHIN);
    app.end();
    Access access = new AccessReading(root).read();
    ChecksReading checks = new ChecksReading(root, folder, access);
    Application application =
        new Application(
            Optional.of(file.path()),
            name(),
            version,
            new Making(packs, delivered, build(packs), settings, artifact),
            new Context(path.map(ContextPath::normal), host, startsWithin, entries()),
            dataSources,
            access,
            program,
            checks.requests(),
            checks.data(dataSources));
    ownValuesAreKnown();
    root.end();
    TomlFile.throwProblems(Stream.concat(Stream.of(file), servers.stream()).toList());
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

  private Optional<String> version() {
    Optional<String> version = root.text("version").flatMap(this::versionBehind);
    if (version.isPresent() && !version.get().matches(NAME_FORM)) {
      root.problem(
          "version",
          "'" + version.get() + "' is no version",
          "Use letters, digits and . _ - only, beginning with a letter or digit");
    }
    return version;
  }

  /** The version itself, or what is found where it stands. */
  private Optional<String> versionBehind(String written) {
    try {
      if (written.startsWith(POM)) {
        return Optional.of(ProjectVersion.of(folder.resolve(written.substring(POM.length()))));
      }
      Optional<Reference> reference = Reference.of(written, folder);
      return Optional.of(reference.map(values).orElse(written));
    } catch (IOException | SecretException e) {
      root.problem(
          "version",
          "'" + written + "' tells no version: " + e.getMessage(),
          "Write the version itself, or where it stands: \"pom:pom.xml\", \"env:NAME\" or"
              + " \"file:PATH\"");
      return Optional.empty();
    }
  }

  private List<PackDescription> packs(Optional<String> version, Optional<String> delivered) {
    String artifactName = root.text("name").orElse("app") + "-" + version.orElse("0");
    return new PackSection(root.section("pack"), folder, artifactName, delivered).read();
  }

  /** Which of several artifacts is delivered: the one told, else the only one a server takes. */
  private static Optional<String> delivered(
      Section app, Optional<String> told, List<PackDescription> packs) {
    List<String> names = packs.stream().map(PackDescription::name).toList();
    if (told.isPresent() && !names.contains(told.get())) {
      app.problem(
          "pack",
          "there is no [pack." + told.get() + "]",
          names.equals(List.of("")) ? "Remove 'pack'" : Section.fixFor(told.get(), names));
    }
    return told.or(
        () -> {
          List<String> wars =
              packs.stream()
                  .filter(pack -> pack.shape().isWar())
                  .map(PackDescription::name)
                  .toList();
          return wars.size() == 1 ? Optional.of(wars.get(0)) : Optional.empty();
        });
  }

  private Optional<Build> build(List<PackDescription> packs) {
    Section build = root.section("build");
    if (build.isEmpty()) {
      return Optional.empty();
    }
    List<String> run = build.arguments("command");
    if (run.isEmpty() || run.get(0).isBlank()) {
      build.missing(
          "command", "Give a command as a list, like command = [\"mvn\", \"-q\", \"package\"]");
    }
    List<String> sources = build.texts("sources");
    List<Path> makes = packs.stream().flatMap(pack -> pack.classes().stream()).distinct().toList();
    List<Path> pages = packs.stream().flatMap(pack -> pack.web().stream()).distinct().toList();
    build.end();
    return Optional.of(
        new Build(
            run,
            (sources.isEmpty() ? DEFAULT_SOURCES : sources).stream().map(folder::resolve).toList(),
            makes.isEmpty() ? pages : makes));
  }

  private Map<String, JsonNode> settings(List<PackDescription> packs, Program program) {
    Section section = root.section("settings");
    boolean pages = packs.stream().anyMatch(pack -> pack.shape() == Shape.WEB);
    boolean written = program.settings().filter(file -> file.copied().isEmpty()).isPresent();
    if (!section.isEmpty() && !pages && !written) {
      root.problem(
          "settings",
          "nothing takes [settings]",
          "They go into shape = \"front-end\", or into the file that 'settings-file' in [program] names");
    }
    Map<String, JsonNode> settings = new TreeMap<>();
    for (String key : section.keys()) {
      Object value = section.value(key).orElseThrow();
      boolean secret = value instanceof String text && Reference.of(text, folder).isPresent();
      if (secret && pages) {
        section.problem(
            key,
            "a secret must not go into a page, where everybody reads it",
            "Write the value itself, or keep it on the server");
      }
      settings.put(
          key, TomlJson.of(value instanceof String text ? section.anchored(key, text) : value));
    }
    return settings;
  }

  private List<EnvEntry> entries() {
    Section section = root.section("env-entry");
    List<EnvEntry> entries = new ArrayList<>();
    for (String name : section.keys()) {
      Object value = section.value(name).orElseThrow();
      Optional<String> type = EnvEntry.typeOf(value);
      if (type.isEmpty()) {
        section.problem(
            name,
            "'" + name + "' is no text, number, true or false",
            "Write one value, like \"workshop/bays\" = 4");
      }
      String text = value instanceof String one ? section.anchored(name, one) : "" + value;
      entries.add(
          new EnvEntry(
              name,
              text,
              type.orElse(""),
              value instanceof String ? Reference.of(text, folder) : Optional.empty()));
    }
    return entries;
  }

  private void ownValuesAreKnown() {
    Section own = root.section(FOR);
    for (String server : own.keys()) {
      Section values = own.section(server);
      OWN.forEach(values::has);
      values.end();
    }
  }
}
