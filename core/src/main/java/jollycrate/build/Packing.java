package jollycrate.build;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import jollycrate.app.Application;
import jollycrate.app.Build;
import jollycrate.app.DataSource;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackDescription;
import jollycrate.app.Setting;
import jollycrate.app.User;
import jollycrate.artifact.ArtifactReader;
import jollycrate.host.Host;
import jollycrate.pack.PackException;
import jollycrate.pack.PackRequest;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;
import jollycrate.pack.Packer;
import jollycrate.pack.Shape;

/** Packs what an application describes. */
public final class Packing {
  private static final String SOURCES = "src/main/java";
  private static final LocalDateTime FIRST = LocalDateTime.of(1980, 1, 1, 0, 0);
  private static final LocalDateTime LAST = LocalDateTime.of(2107, 12, 31, 23, 59, 58);

  private final Setting setting;
  private final Application application;
  private final PackWatch watch;
  private final ProjectBuild project;
  private final MavenLibraries libraries;

  /**
   * What is packed again and again.
   *
   * @param inputs every file and folder that it depends on
   */
  public record Chosen(
      Application application, PackDescription description, Packing packing, List<Path> inputs) {}

  public Packing(
      Host host, Setting setting, Application application, PackWatch watch, Asking asking) {
    this.setting = setting;
    this.application = application;
    this.watch = watch;
    Path file = application.file().orElseThrow().toAbsolutePath();
    this.project = new ProjectBuild(host, file.getParent(), setting.data(), asking.doing());
    this.libraries = new MavenLibraries(host, file.getParent(), setting.data(), asking);
  }

  /** What a description is packed from. */
  public Chosen chosen(PackDescription description) {
    List<Path> inputs = new ArrayList<>(List.of(application.file().orElseThrow()));
    inputs.addAll(description.classes());
    inputs.addAll(description.web());
    application.making().build().ifPresent(build -> inputs.addAll(build.sources()));
    return new Chosen(application, description, this, List.copyOf(inputs));
  }

  /** Builds first where that is described and wanted. */
  public Packing built(BuildMode mode) {
    if (application.making().build().isPresent()) {
      project.run(application.making().build().get(), mode);
    } else if (mode == BuildMode.ALWAYS) {
      throw new NotDescribedException(
          "Cannot build '"
              + application.name()
              + "': "
              + application.file().orElseThrow()
              + " has no [build]. Write one, like command = [\"mvn\", \"-q\", \"package\"]");
    }
    return this;
  }

  public Packed pack(PackDescription description, Path target) {
    mustHaveClasses(description);
    return Packer.pack(request(description), target, watch);
  }

  private void mustHaveClasses(PackDescription description) {
    Path folder = application.file().orElseThrow().toAbsolutePath().getParent();
    List<Path> sources =
        application.making().build().map(Build::sources).orElse(List.of(folder.resolve(SOURCES)));
    if (!description.classes().isEmpty()
        && description.classes().stream().allMatch(Files::exists)
        && ProjectBuild.lacksClasses(sources, description.classes())) {
      throw new BuildException(
          "Cannot pack '"
              + application.name()
              + "': there are sources, and not one class in "
              + description.classes()
              + ". Build the project first",
          "");
    }
  }

  private PackRequest request(PackDescription description) {
    boolean web = description.shape() == Shape.WEB;
    return new PackRequest(
        application.name(),
        application.version().orElse(""),
        description.shape(),
        description.classes(),
        description.web(),
        web ? List.of() : libraries(description),
        standalone(description),
        description.main(),
        description.choice(),
        description.shape() == Shape.EXECUTABLE_WAR ? standaloneSettings() : new TreeMap<>(),
        new PackRequest.Pages(
            application.context().path().orElse("/"),
            application.making().settings(),
            web ? description.settingsFile() : Optional.empty(),
            web ? description.fallback() : Optional.empty(),
            description.javax()),
        time());
  }

  private List<Path> libraries(PackDescription description) {
    return description
        .libs()
        .map(patterns -> patterns.files())
        .or(libraries::ofRunTime)
        .orElse(List.of());
  }

  private List<Path> standalone(PackDescription description) {
    List<Path> standalone = new ArrayList<>(description.standalone().files());
    if (description.shape() == Shape.EXECUTABLE_WAR) {
      application.dataSources().stream()
          .map(DataSource::driver)
          .filter(driver -> !standalone.contains(driver))
          .distinct()
          .forEach(standalone::add);
    }
    return standalone;
  }

  private SortedMap<String, String> standaloneSettings() {
    SortedMap<String, String> settings = new TreeMap<>();
    settings.put("path", application.context().path().orElse("/"));
    for (DataSource source : application.dataSources()) {
      String key = "datasource." + source.jndiName() + ".";
      settings.put(key + "url", source.url());
      settings.put(key + "user", source.user());
      source.password().ifPresent(password -> settings.put(key + "password", password.text()));
      settings.put(key + "max", String.valueOf(source.most()));
      settings.put(key + "wait", String.valueOf(source.patience().toMillis()));
      settings.put(key + "driver", driverClass(source));
    }
    for (User user : application.access().users()) {
      user.password()
          .ifPresent(
              password -> settings.put("user." + user.name() + ".password", password.text()));
    }
    application
        .access()
        .roles()
        .forEach((role, users) -> settings.put("role." + role + ".users", String.join(",", users)));
    return settings;
  }

  private static String driverClass(DataSource source) {
    try {
      return source.driverClass().or(() -> announced(source.driver())).orElse("");
    } catch (UncheckedIOException e) {
      throw new PackException(
          "Cannot read the driver '" + source.driver() + "': " + e.getCause().getMessage());
    }
  }

  private static Optional<String> announced(Path driver) {
    try {
      return ArtifactReader.drivers(driver).stream().findFirst();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** SOURCE_DATE_EPOCH as reproducible-builds.org specifies it, else one fixed time. */
  private LocalDateTime time() {
    Optional<String> told = setting.sourceDateEpoch();
    if (told.isEmpty()) {
      return PackRequest.FIXED_TIME;
    }
    try {
      LocalDateTime time =
          LocalDateTime.ofEpochSecond(Long.parseLong(told.get()), 0, ZoneOffset.UTC);
      return time.isBefore(FIRST) ? FIRST : time.isAfter(LAST) ? LAST : time;
    } catch (NumberFormatException | DateTimeException e) {
      throw new NotDescribedException(
          "Cannot read SOURCE_DATE_EPOCH '"
              + told.get()
              + "': it is no number of seconds since 1970. Fix or unset the variable");
    }
  }
}
