package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Packing by the built program: the same bytes everywhere, builds, libraries, and bad input. */
class PackingIT {
  @TempDir Path folder;

  @Test
  void everyShapeHasTheSameBytesInAnotherFolderLocaleAndTimeZone() throws IOException {
    Path one = Files.createDirectories(folder.resolve("one"));
    Path two = Files.createDirectories(folder.resolve("another place"));
    Map<String, String> first = packed(one, Map.of("TZ", "UTC"));
    Map<String, String> second =
        packed(two, Map.of("TZ", "Pacific/Auckland", "LC_ALL", "C", "LANG", "C"));
    assertThat(first).hasSize(8).isEqualTo(second);
    assertThat(
            new Program(one.resolve("spokes")).ends(0, "inspect", "packed/spokes-1.4.0.war").out())
        .contains("needs 17 (class-file version 61")
        .contains(
            "goes to      Tomcat 10.1, Tomcat 11.0, TomEE 9, Jetty 12.1, WildFly 39,"
                + " Open Liberty 26, GlassFish 7.0\n")
        .contains("jdbc/spokes  declared in WEB-INF/web.xml:");
    Map<String, String> dated = packed(two, Map.of("SOURCE_DATE_EPOCH", "1700000000"));
    assertThat(dated).hasSize(8).doesNotContainValue(first.get("spokes-1.4.0.war"));
    try (ZipFile zip = new ZipFile(two.resolve("spokes/packed/spokes-1.4.0.war").toFile())) {
      assertThat(zip.stream().map(ZipEntry::getTimeLocal).map(Object::toString))
          .allMatch(time -> time.compareTo("2023-11-14T22:13:20") <= 0);
    }
  }

  @Test
  void twoReleasesAreComparedByWhatTheyHold() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("pack");
      workshop.edit("1.4.0", "1.5.0");
      workshop.edit(workshop.folder.resolve("web/WEB-INF/web.xml"), "/health</url", "/pulse</url");
      workshop.ok("pack");
      assertThat(workshop.ok("compare", "packed/spokes-1.4.0.war", "packed/spokes-1.5.0.war"))
          .contains("spokes 1.4.0  ->  spokes 1.5.0")
          .contains("new   /pulse", "gone  /health")
          .containsPattern("changed +\\S+ \\S+ -> \\S+ \\S+ +WEB-INF/classes/spokes/Release.class");
      assertThat(workshop.ok("compare", "packed/spokes-1.5.0.war", "packed/spokes-1.5.0.war"))
          .contains("Identical, byte for byte");
    }
  }

  @Test
  void whatTheJdkThinksOfAManifestStaysOffTheTerminal() throws IOException {
    Path jar = folder.resolve("bell.jar");
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(jar))) {
      zip.putNextEntry(new ZipEntry("META-INF/MANIFEST.MF"));
      zip.write("Main-Class: spokes.Bell\r\nRing: one\r\nRing: two\r\n\r\n".getBytes());
    }
    assertThat(new Program(folder).ends(0, "inspect", jar.toString()).err()).isEmpty();
  }

  private Map<String, String> packed(Path parent, Map<String, String> environment)
      throws IOException {
    Map<String, String> digests = new TreeMap<>();
    for (String name : List.of("spokes", "bell", "spokes-desk")) {
      Path sample = parent.resolve(name);
      if (!Files.exists(sample)) {
        Workshop.copySample(name, parent);
        if (name.equals("spokes")) {
          Files.writeString(sample.resolve("web/räder.txt"), "Räder");
        }
      }
      Program program = new Program(sample);
      environment.forEach(program::inheriting);
      Program.Run run = program.run("pack", "--all", "--digest");
      assertThat(run.exit()).as(run.all()).isZero();
      run.out()
          .lines()
          .filter(line -> line.startsWith("sha256 "))
          .map(line -> line.split(" +"))
          .forEach(words -> digests.put(words[2].replace("packed/", ""), words[1]));
    }
    return digests;
  }

  @Test
  void aBuildRunsWhenSourcesAreNewerAndItsOutputIsShownWhenItFails() throws IOException {
    Path bell = Workshop.copySample("bell", folder);
    Program program = new Program(bell).with("JOLLY_DATA", folder.resolve("data").toString());
    Program.Run unbuilt = program.run("pack", "merged", "--no-build");
    assertThat(unbuilt.exit()).isEqualTo(3);
    assertThat(unbuilt.err())
        .contains("classes': there is no such folder. Build the project first");
    assertThat(program.run("pack", "merged").exit()).isZero();
    Path built = bell.resolve("classes/bell/tower/Tower.class");
    Object before = Files.getLastModifiedTime(built);
    assertThat(program.run("pack", "merged").out()).contains("Unchanged:");
    assertThat(Files.getLastModifiedTime(built)).isEqualTo(before);
    byte[] artifact = Files.readAllBytes(bell.resolve("packed/bell-1.0.0-merged.jar"));
    Path source = bell.resolve("src/bell/tower/Tower.java");
    Files.writeString(source, Files.readString(source).replace("class Tower", "klass Tower"));
    Program.Run failed = program.run("pack", "merged");
    assertThat(failed.exit()).isEqualTo(4);
    assertThat(failed.err()).contains("Cannot build in", "ended with 1", "Tower.java:22: error");
    assertThat(bell.resolve("packed/bell-1.0.0-merged.jar")).hasBinaryContent(artifact);
    assertThat(program.run("pack", "merged").err()).contains("Cannot build in");
    assertThat(program.ends(4, "pack", "merged", "--no-build").err())
        .contains("the last build failed or was cut off");
    Files.writeString(source, Files.readString(source).replace("klass Tower", "class Tower"));
    program.ends(0, "pack", "merged");
    program.ends(0, "pack", "merged", "--no-build");
  }

  @Test
  void sourcesWithoutClassesAreNotPacked() throws IOException {
    Path bell = Workshop.copySample("bell", folder);
    Program program = new Program(bell).with("JOLLY_DATA", folder.resolve("data").toString());
    program.ends(0, "pack", "merged");
    try (Stream<Path> built = Files.walk(bell.resolve("classes"))) {
      for (Path file : built.filter(f -> f.toString().endsWith(".class")).toList()) {
        Files.delete(file);
      }
    }
    assertThat(program.ends(4, "pack", "merged", "--no-build").err())
        .contains("there are sources, and not one class in");
    program.ends(0, "pack", "merged");
  }

  @Test
  void aProjectWithExtensionsIsAskedOfMavenOnceAndAnyOtherIsRead() throws IOException {
    Path bell = Workshop.copySample("bell", folder);
    Files.writeString(
        bell.resolve("pom.xml"),
        """
        <project xmlns="http://maven.apache.org/POM/4.0.0"><modelVersion>4.0.0</modelVersion>
          <groupId>spokes</groupId><artifactId>bell</artifactId><version>1</version>
          <dependencies><dependency><groupId>com.h2database</groupId><artifactId>h2</artifactId>
            <version>%s</version><scope>runtime</scope></dependency></dependencies>
          <build><pluginManagement><plugins><plugin>
            <artifactId>maven-dependency-plugin</artifactId><version>3.8.1</version>
          </plugin></plugins></pluginManagement></build>
        </project>
        """
            .formatted(System.getProperty("h2.version")));
    Path file = bell.resolve("jolly.toml");
    Files.writeString(file, Files.readString(file).replace("libs  = [\"libs\"]\n", ""));
    Path extensions = Files.createDirectories(bell.resolve(".mvn")).resolve("extensions.xml");
    Files.writeString(extensions, "<extensions/>");
    Program program = new Program(bell).with("JOLLY_DATA", folder.resolve("data").toString());
    Program.Run first = program.run("pack", "folder");
    assertThat(first.exit()).as(first.all()).isZero();
    assertThat(bell.resolve("packed/bell-1.0.0-folder/lib").toFile().list())
        .containsExactly("h2-" + System.getProperty("h2.version") + ".jar");
    program.inheriting("PATH", "/usr/bin:/bin").with("MAVEN_OPTS", "-bad");
    assertThat(program.ends(0, "pack", "folder").out()).contains("Unchanged:");
    Files.delete(extensions);
    assertThat(program.ends(0, "pack", "folder").out()).contains("Unchanged:");
  }

  @Test
  void whateverIsWrongTheEarlierArtifactStays() throws IOException {
    Path spokes = Workshop.copySample("spokes", folder);
    Program program = new Program(spokes);
    assertThat(program.run("pack").exit()).isZero();
    byte[] artifact = Files.readAllBytes(spokes.resolve("packed/spokes-1.4.0.war"));
    Files.writeString(spokes.resolve("libs/broken.jar"), "no archive");
    refused(program, "libs/broken.jar': it is too short. Fetch it again");
    Files.delete(spokes.resolve("libs/broken.jar"));
    Path jackson = one(spokes.resolve("libs"), "jackson-core-");
    Path older = spokes.resolve("libs/jackson-core-2.1.0.jar");
    Wars.empty(folder)
        .entry(
            "META-INF/maven/x/y/pom.properties",
            "groupId=com.fasterxml.jackson.core\nartifactId=jackson-core\nversion=2.1.0\n")
        .write("older.jar");
    Files.move(folder.resolve("older.jar"), older);
    refused(program, jackson.getFileName() + "': both are", "in versions 2.1.0 and");
    Files.delete(older);
    Files.createFile(spokes.resolve("web/Style.css"));
    refused(program, "differ in case only");
    Files.delete(spokes.resolve("web/Style.css"));
    assertThat(spokes.resolve("packed/spokes-1.4.0.war")).hasBinaryContent(artifact);
    Files.write(spokes.resolve("web/large.bin"), new byte[1 << 20]);
    Program.Run full =
        program.shell(
            "ulimit -f 200; exec \"$0\" pack", Program.HOME.resolve("bin/jolly").toString());
    assertThat(full.exit()).as(full.all()).isEqualTo(3);
    assertThat(full.err()).contains("Cannot pack", "File too large");
    assertThat(spokes.resolve("packed/spokes-1.4.0.war")).hasBinaryContent(artifact);
    assertThat(spokes.resolve("packed").toFile().list())
        .containsOnlyOnce("spokes-1.4.0.war")
        .isSubsetOf("spokes-1.4.0.war", ".spokes-1.4.0.war.index");
  }

  private static void refused(Program program, String... words) {
    Program.Run run = program.run("pack");
    assertThat(run.exit()).as(run.all()).isEqualTo(3);
    assertThat(run.err()).contains(words);
  }

  private static Path one(Path folder, String start) throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .filter(file -> file.getFileName().toString().startsWith(start))
          .findFirst()
          .orElseThrow();
    }
  }
}
