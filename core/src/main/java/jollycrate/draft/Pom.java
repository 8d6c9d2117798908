package jollycrate.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.ProjectVersion;
import jollycrate.file.SmallFile;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What a Maven project tells about itself in its {@code pom.xml}, without a build. */
final class Pom {
  private static final Set<String> NOT_PACKED = Set.of("provided", "test", "system");

  static final String NAME = "pom.xml";
  private static final int MOST_BYTES = 1 << 20;

  private final Path file;
  private final XmlDocument document;
  private final XmlElement project;

  private Pom(Path file, XmlDocument document) {
    this.file = file;
    this.document = document;
    this.project = document.root();
  }

  /** Empty when there is none that can be read. */
  static Optional<Pom> in(Path folder) throws IOException {
    Path file = folder.resolve(NAME);
    if (!Files.isRegularFile(file) || Files.size(file) > MOST_BYTES) {
      return Optional.empty();
    }
    try {
      return Optional.of(new Pom(file, XmlDocument.parse(NAME, Files.readAllBytes(file))));
    } catch (XmlException e) {
      return Optional.empty();
    }
  }

  String artifactId() {
    return text(project, "artifactId").orElse("application");
  }

  String packaging() {
    return text(project, "packaging").orElse("jar");
  }

  /** Where a child of the project stands. */
  String place(String child) {
    return project
        .child(child)
        .map(element -> NAME + ":" + document.lineOf(element.start()))
        .orElse(NAME);
  }

  /** Whether the version can be told from the file alone. */
  boolean tellsVersion() {
    try {
      return !ProjectVersion.of(file).isEmpty();
    } catch (IOException e) {
      return false;
    }
  }

  /** Modules that are web applications, by folder. */
  List<String> webModules() throws IOException {
    List<String> modules =
        project
            .child("modules")
            .map(all -> all.children("module").stream().map(m -> m.text().strip()).toList())
            .orElse(List.of());
    List<String> web = new ArrayList<>();
    for (String module : modules) {
      Path folder = file.resolveSibling(module).normalize();
      if (folder.startsWith(file.getParent())
          && in(folder).filter(pom -> pom.packaging().equals("war")).isPresent()) {
        web.add(module);
      }
    }
    return web;
  }

  /** A plug-in that makes a program of the archive. */
  Optional<ProgramMaker> makesProgram() {
    return ProgramMaker.ofMaven(
        plugins().stream().flatMap(plugin -> text(plugin, "artifactId").stream()).toList());
  }

  /**
   * The file that the package phase makes, from the project's folder on; empty where it is not
   * told.
   */
  Optional<String> packaged() {
    Optional<String> named =
        project.child("build").flatMap(build -> text(build, "finalName")).filter(Pom::isPlain);
    Optional<String> version = version().filter(Pom::isPlain);
    return named.or(() -> version.map(it -> artifactId() + "-" + it)).flatMap(this::archive);
  }

  /** Some builds put the whole program beside the archive that others would make. */
  private Optional<String> archive(String name) {
    String maker = makesProgram().map(ProgramMaker::plugin).orElse("");
    if (maker.equals(ProgramMaker.ASSEMBLY) || makesFolder()) {
      return Optional.empty();
    }
    String whole = maker.equals(ProgramMaker.QUARKUS) ? "-runner" : "";
    return Optional.of("target/" + name + whole + "." + packaging());
  }

  /** Whether the build leaves the program in a folder, of which an archive is only a part. */
  boolean makesFolder() {
    return makesProgram().filter(maker -> maker.plugin().equals(ProgramMaker.QUARKUS)).isPresent()
        && !isWhole();
  }

  /** Whether Quarkus is told to put its libraries into one archive. */
  private boolean isWhole() {
    return isWholeByItsOwnFile()
        || project.child("properties").stream()
            .flatMap(properties -> properties.children().stream())
            .anyMatch(
                property ->
                    property.name().matches("quarkus\\.package\\.(jar\\.)?type")
                        && property.text().strip().equals("uber-jar"));
  }

  private boolean isWholeByItsOwnFile() {
    Path own = file.resolveSibling("src/main/resources/application.properties");
    try {
      return Files.isRegularFile(own)
          && SmallFile.text(own, SmallFile.MOST_BYTES)
              .matches("(?s).*quarkus\\.package\\.(jar\\.)?type\\s*=\\s*uber-jar.*");
    } catch (IOException e) {
      return false;
    }
  }

  private static boolean isPlain(String text) {
    return !text.contains("${");
  }

  private Optional<String> version() {
    return text(project, "version")
        .or(() -> project.child("parent").flatMap(parent -> text(parent, "version")));
  }

  /** Whether the build does more to the archive than to put classes, pages and libraries in. */
  boolean shapesItsOwnArchive() {
    return plugins().stream()
        .filter(plugin -> text(plugin, "artifactId").filter("maven-war-plugin"::equals).isPresent())
        .flatMap(plugin -> plugin.child("configuration").stream())
        .anyMatch(
            configuration ->
                configuration.child("overlays").isPresent()
                    || configuration.child("webResources").isPresent()
                    || configuration.child("warSourceDirectory").isPresent());
  }

  private List<XmlElement> plugins() {
    return project
        .child("build")
        .flatMap(build -> build.child("plugins"))
        .map(all -> all.children("plugin"))
        .orElse(List.of());
  }

  /** A library that is known to hold a JDBC driver, with its line. */
  Optional<Driver> driver() {
    return project.child("dependencies").stream()
        .flatMap(all -> all.children("dependency").stream())
        .flatMap(
            dependency ->
                Driver.of(
                    text(dependency, "groupId").orElse(""),
                    text(dependency, "artifactId").orElse(""),
                    text(dependency, "scope").filter(NOT_PACKED::contains).isEmpty(),
                    NAME + ":" + document.lineOf(dependency.start()))
                    .stream())
        .findFirst();
  }

  private static Optional<String> text(XmlElement element, String name) {
    return element.child(name).map(child -> child.text().strip()).filter(text -> !text.isEmpty());
  }
}
