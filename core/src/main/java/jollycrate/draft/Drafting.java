package jollycrate.draft;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.ApplicationFile;
import jollycrate.app.NotDescribedException;
import jollycrate.artifact.Artifact;
import jollycrate.file.SmallFile;
import jollycrate.json.Json;

/** Makes a first description of the project in a folder. */
public final class Drafting {
  private static final String WEB = "src/main/webapp";
  private static final String VERSION = "version = \"env:VERSION\"";
  private static final List<String> PAGES = List.of("dist", "build", "out", "public");

  private final Path folder;
  private final DraftText text = new DraftText();
  private Optional<Driver> driver = Optional.empty();

  private Drafting(Path folder) {
    this.folder = folder;
  }

  /**
   * Writes {@code jolly.toml}, or says what is missing in the one that stands there.
   *
   * @throws NotDescribedException when nothing is found that could be delivered
   */
  public static Draft of(Path folder) throws IOException {
    return new Drafting(folder).draft();
  }

  private Draft draft() throws IOException {
    text.note("Drafted from what stood in this folder; each value says where it was found.");
    text.note("Lines that begin with 'tell:' are yours to complete.");
    Optional<Insight> insight = described();
    insight.ifPresentOrElse(
        found -> new DeclaredDraft(folder, text, driver).write(found),
        () -> text.ask("what it declares: nothing here could be read yet"));
    return write();
  }

  private Draft write() throws IOException {
    Path file = folder.resolve(ApplicationFile.NAME);
    if (!Files.exists(file)) {
      Files.writeString(file, text.all());
      return new Draft(file.toString(), true, text.found(), text.untold(), text.all());
    }
    String written = Files.readString(file);
    List<Draft.Found> missing = text.found().stream().filter(one -> !stands(written, one)).toList();
    return new Draft(file.toString(), false, missing, List.of(), text.all());
  }

  /** A file of somebody is compared by its words: however he writes it, the key is in there. */
  private static boolean stands(String written, Draft.Found one) {
    String key = one.key().substring(one.key().lastIndexOf('.') + 1);
    String value = one.value().replaceAll("^[\\[\"]+|[]\"]+$", "");
    boolean named = List.of("get", "name").contains(key) && one.key().contains(".");
    return named ? written.contains(value) : written.contains(key);
  }

  /** What it is made of; what that declares, when something is there to be read. */
  private Optional<Insight> described() throws IOException {
    Optional<Pom> pom = Pom.in(folder);
    if (pom.isPresent()) {
      return maven(pom.get());
    }
    Optional<GradleScript> gradle = GradleScript.in(folder);
    if (gradle.isPresent()) {
      return ofGradle(gradle.get());
    }
    if (Files.isRegularFile(folder.resolve("package.json"))) {
      frontEnd();
      return Optional.empty();
    }
    Optional<Path> archive = Insight.newestArchive(folder);
    if (archive.isPresent()) {
      return finished(archive.get());
    }
    throw new NotDescribedException(
        "Cannot draft a description in '"
            + folder
            + "': there is no pom.xml, build.gradle, package.json, WAR or JAR. Go to the folder of"
            + " a project");
  }

  private void name(String name, String where) {
    String plain = name.replaceAll("[^A-Za-z0-9._-]+", "-").replaceFirst("^[^A-Za-z0-9]+", "");
    text.text("name", plain, where);
  }

  private Optional<Insight> maven(Pom pom) throws IOException {
    if (pom.packaging().equals("pom")) {
      List<String> modules = pom.webModules();
      throw new NotDescribedException(
          "Cannot draft a description in '"
              + folder
              + "': this Maven project only holds others. "
              + (modules.isEmpty()
                  ? "Go to the module that is delivered"
                  : "Go to a web application of it: " + String.join(", ", modules)));
    }
    driver = pom.driver();
    name(pom.artifactId(), pom.place("artifactId"));
    if (pom.tellsVersion()) {
      text.text("version", "pom:pom.xml", pom.place("version"));
    } else {
      text.mark(VERSION, "which version it is: a build sets it");
    }
    boolean war = pom.packaging().equals("war");
    boolean wrapper = Files.isExecutable(folder.resolve("mvnw"));
    Path target = folder.resolve("target");
    Optional<Path> built = Insight.newestArchive(target).filter(file -> war == isWar(file));
    if (pom.shapesItsOwnArchive() && built.isPresent()) {
      text.text("artifact", shown(built.get()), "its own build makes this archive");
      return Insight.of(built.get());
    }
    String maven = wrapper ? "./mvnw" : "mvn";
    Optional<ProgramMaker> maker = pom.makesProgram();
    if (maker.isPresent() && !(war && pom.packaged().isEmpty())) {
      return ofItsOwnBuild(pom, maker.get(), maven, built);
    }
    build(List.of(maven, "-q", "process-classes"), Pom.NAME);
    text.table("pack");
    if (!war) {
      text.text("shape", "merged-jar", pom.place("packaging"));
    }
    List<Path> classes = List.of(target.resolve("classes"));
    if (Files.isDirectory(classes.get(0)) || hasSources()) {
      text.value("classes", "[\"target/classes\"]", "where Maven compiles to");
    }
    pages(war);
    Optional<Insight> insight =
        built
            .filter(file -> war)
            .flatMap(Insight::of)
            .or(() -> Insight.of(classes, war ? List.of(folder.resolve(WEB)) : List.of()));
    if (war && insight.filter(found -> found.asksForData()).isPresent()) {
      driver
          .filter(Driver::packed)
          .ifPresent(
              own ->
                  text.value(
                      "leave-out",
                      "[\"WEB-INF/lib/" + own.artifact() + "-*.jar\"]",
                      "the server gets the driver with the data source"));
    }
    note(war);
    if (!Files.isDirectory(classes.get(0)) && Files.isDirectory(folder.resolve("src/main/java"))) {
      text.ask("what its classes declare: they are not compiled yet. Build, then draft again");
    }
    return insight;
  }

  /** What its own build makes is delivered as it is. */
  private Optional<Insight> ofItsOwnBuild(
      Pom pom, ProgramMaker maker, String maven, Optional<Path> built) {
    Optional<Path> whole = built.filter(file -> !pom.makesFolder());
    artifact(whole.map(this::shown).or(pom::packaged), "target/...", maker.plugin());
    build(List.of(maven, "-q", "-DskipTests", "package"), Pom.NAME);
    program(Optional.of(maker), pom.packaging().equals("war"));
    return whole.flatMap(Insight::of);
  }

  private void artifact(Optional<String> file, String otherwise, String maker) {
    file.ifPresentOrElse(
        named -> text.text("artifact", named, "the build makes it (" + maker + ")"),
        () ->
            text.mark(
                "artifact = " + DraftText.quoted(otherwise),
                "the archive that the build makes (" + maker + "), with its libraries inside"));
  }

  /** How it is told its port, where it is no web application. */
  private void program(Optional<ProgramMaker> maker, boolean war) {
    if (!war) {
      text.table("program");
      maker
          .filter(known -> !known.port().isEmpty())
          .ifPresentOrElse(
              known -> text.value("port", known.port(), "as its framework is told"),
              () ->
                  text.mark(
                      "port = { argument = \"--port={value}\" }",
                      "how the program is told its port"));
    }
  }

  /** A web application of pages only has none, and no folder of classes then. */
  private boolean hasSources() throws IOException {
    Path sources = folder.resolve("src/main");
    if (!Files.isDirectory(sources)) {
      return false;
    }
    try (Stream<Path> kinds = Files.list(sources)) {
      return kinds.anyMatch(kind -> !kind.equals(folder.resolve(WEB)));
    }
  }

  private void pages(boolean war) {
    if (war && Files.isDirectory(folder.resolve(WEB))) {
      text.text("web", WEB, "the folder is there");
    }
  }

  private void note(boolean war) {
    text.note("libraries: those that pom.xml resolves to at run time");
    program(Optional.empty(), war);
  }

  private Optional<Insight> ofGradle(GradleScript script) throws IOException {
    Optional<GradleScript.Told> called = script.projectName();
    String itself =
        called
            .map(GradleScript.Told::value)
            .orElse(folder.toAbsolutePath().getFileName().toString());
    name(itself, called.map(GradleScript.Told::where).orElse("the folder's name"));
    Optional<GradleScript.Told> version = script.version();
    version.ifPresentOrElse(
        told -> text.text("version", told.value(), told.where()),
        () -> text.mark(VERSION, "which version it is: " + script.name() + " is not run"));
    boolean wrapper = Files.isExecutable(folder.resolve("gradlew"));
    String command = wrapper ? "./gradlew" : "gradle";
    Optional<Path> built = Insight.newestArchive(folder.resolve("build/libs"));
    Optional<ProgramMaker> maker = script.maker();
    if (maker.isPresent()) {
      String ending = script.isWar() ? ".war" : ".jar";
      Optional<String> file =
          built
              .map(this::shown)
              .or(() -> version.map(it -> "build/libs/" + itself + "-" + it.value() + ending));
      artifact(file, "build/libs/...", maker.get().gradle());
      build(List.of(command, "assemble"), script.name());
      program(maker, script.isWar());
      return built.flatMap(Insight::of);
    }
    build(List.of(command, "assemble"), script.name());
    text.table("pack");
    if (!script.isWar()) {
      text.text("shape", "merged-jar", "no war plug-in in " + script.name());
    }
    text.value(
        "classes",
        "[\"build/classes/java/main\", \"build/resources/main\"]",
        "where Gradle compiles to");
    pages(script.isWar());
    text.mark("libs = [\"build/libs/*.jar\"]", "where its libraries stand");
    program(Optional.empty(), script.isWar());
    return built
        .flatMap(Insight::of)
        .or(() -> Insight.of(List.of(folder.resolve("build/classes/java/main")), List.of()));
  }

  private void build(List<String> command, String where) {
    text.table("build");
    text.value("command", DraftText.list(command), where);
  }

  private void frontEnd() throws IOException {
    JsonNode described;
    try {
      described =
          Json.told()
              .readTree(SmallFile.text(folder.resolve("package.json"), SmallFile.MOST_BYTES));
    } catch (JsonProcessingException e) {
      throw new NotDescribedException(
          "Cannot read 'package.json': " + Json.fault(e) + ". Fix it first");
    }
    name(described.path("name").asText("pages"), "package.json");
    text.text("version", described.path("version").asText("0.0.0"), "package.json");
    if (described.path("scripts").has("build")) {
      build(List.of("npm", "run", "build"), "package.json, scripts");
    }
    text.table("pack");
    text.text("shape", "front-end", "package.json, and no Java project");
    Optional<String> pages =
        PAGES.stream()
            .filter(name -> Files.isRegularFile(folder.resolve(name).resolve("index.html")))
            .findFirst();
    if (pages.isPresent()) {
      text.text("web", pages.get(), "its index.html");
    } else if (described.path("scripts").path("build").asText().endsWith("vite build")
        && writesToItsOwnFolder()) {
      text.text("web", "dist", "where vite writes");
    } else {
      text.mark("web = \"dist\"", "the folder that its build writes");
    }
    text.mark("fallback = \"index.html\"", "whether one page answers every path (a router in it)");
  }

  /** Whether no configuration of Vite names another folder. */
  private boolean writesToItsOwnFolder() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file :
          files.filter(f -> f.getFileName().toString().startsWith("vite.config.")).toList()) {
        if (SmallFile.text(file, SmallFile.MOST_BYTES).contains("outDir")) {
          return false;
        }
      }
      return true;
    }
  }

  private Optional<Insight> finished(Path archive) {
    Optional<Insight> insight = Insight.of(archive);
    Optional<Artifact> artifact = insight.map(Insight::artifact);
    name(artifact.map(Artifact::name).orElse("application"), shown(archive));
    artifact
        .map(Artifact::version)
        .filter(version -> version.matches("[A-Za-z0-9][A-Za-z0-9._-]*"))
        .ifPresent(version -> text.text("version", version, shown(archive)));
    text.text("artifact", shown(archive), "the newest archive here");
    return insight;
  }

  private static boolean isWar(Path file) {
    return file.toString().endsWith(".war");
  }

  private String shown(Path file) {
    return folder.relativize(file).toString();
  }
}
