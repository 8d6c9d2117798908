package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One project in its shapes, run and delivered as people do. */
class ShapesIT {
  @TempDir Path folder;

  private Path sample(String name) throws IOException {
    return Workshop.copySample(name, folder);
  }

  @Test
  void anExecutableWarAnswersAloneAsItDoesOnTheServer() throws IOException {
    try (Workshop workshop = Workshop.withUsers(folder)) {
      workshop.ok("pack", "solo");
      Path war = workshop.folder.resolve("packed/spokes-1.4.0-solo.war");
      byte[] packed = Files.readAllBytes(war);
      int port = Workshop.freePort();
      Map<String, String> environment =
          Map.of(
              "SPOKES_DB_PASSWORD", "p&<\"x",
              "ROBIN_PASSWORD", Workshop.OWNER_PASSWORD,
              "MIA_PASSWORD", Workshop.MECHANIC_PASSWORD,
              "STANDALONE_PORT", "1",
              "STANDALONE_PATH", "/workshop");
      List<String> command =
          List.of(
              Started.java(),
              "-Dstandalone.port=" + port,
              "-jar",
              war.toString(),
              "--path=/solo",
              "--bind=127.0.0.1");
      String base = "http://127.0.0.1:" + port + "/solo/";
      String alone;
      try (Started started =
          Started.saying("answers at " + base, workshop.folder, environment, command)) {
        alone = Pages.get(base + "api/tickets");
        assertThat(alone).startsWith("200 ").contains("Tandem");
        assertThat(Pages.get(base + "ledger")).startsWith("401");
        assertThat(Pages.get(base + "jsp.jsp")).startsWith("404");
        assertThat(started.stop()).isEqualTo(143);
        assertThat(started.output()).doesNotContain("SEVERE", "WARNING");
      }
      workshop.edit("pack = \"war\"", "pack = \"solo\"").ok("deploy", "--to", "bench");
      assertThat(workshop.page("/spokes/api/tickets")).isEqualTo(alone);
      workshop.ok("pack");
      assertThat(workshop.folder.resolve("packed/spokes-1.4.0.war")).hasBinaryContent(packed);
    }
  }

  @Test
  void aMissingVariableIsNamedAndNothingStarts() throws IOException {
    Path spokes = sample("spokes");
    assertThat(new Program(spokes).run("pack", "solo").exit()).isZero();
    ProcessBuilder builder =
        new ProcessBuilder(Started.java(), "-jar", "packed/spokes-1.4.0-solo.war");
    builder.environment().remove("SPOKES_DB_PASSWORD");
    Process process = builder.directory(spokes.toFile()).redirectErrorStream(true).start();
    assertThat(new String(process.getInputStream().readAllBytes()))
        .contains("the variable SPOKES_DB_PASSWORD is not set", "data source jdbc/spokes");
    assertThat(process.onExit().join().exitValue()).isEqualTo(2);
  }

  @Test
  void theBellRingsInBothJarShapesAndHangsOnItsRope() throws IOException {
    Path bell = sample("bell");
    Program.Run packed = new Program(bell).run("pack", "--all");
    assertThat(packed.exit()).as(packed.all()).isZero();
    assertThat(packed.out()).contains("starts bell.tower.Tower", "starts bell.rope.Rope");
    int port = Workshop.freePort();
    String base = "http://127.0.0.1:" + port + "/";
    List<String> merged =
        List.of(Started.java(), "-jar", "packed/bell-1.0.0-merged.jar", "" + port);
    try (Started started = Started.saying("hangs at " + base, bell, Map.of(), merged)) {
      List<String> rope =
          List.of(Started.java(), "-jar", "packed/bell-1.0.0-rope.jar", base, "dong");
      Started.saying("DONG {\"rings\":1}", bell, Map.of(), rope).close();
      started.stop();
    }
    Files.move(bell.resolve("packed/bell-1.0.0-folder"), folder.resolve("else where"));
    Path script = folder.resolve("else where/bell");
    List<String> beside = List.of(script.toString(), "" + port);
    try (Started started = Started.saying("hangs at " + base, bell, Map.of(), beside)) {
      assertThat(Pages.get(base + "rings")).isEqualTo("200 {\"rings\":1}");
      started.stop();
    }
  }

  @Test
  void chosenPackagesOnlyAndWhatTheyMissIsNamed() throws IOException {
    Path bell = sample("bell");
    Path file = bell.resolve("jolly.toml");
    Files.writeString(
        file, Files.readString(file).replace("\"bell.rope\", \"bell.sound\"", "\"bell.rope\""));
    assertThat(new Program(bell).run("pack", "rope").out())
        .contains("1 class is needed but left out", "bell.sound.Tone, needed by bell.rope.Rope")
        .contains("bell/tower/");
  }

  @Test
  void aFrontEndFindsItsApiUnderAnotherPathWithoutARebuild() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", "--to", "bench");
      Path desk = sample("spokes-desk");
      Files.copy(workshop.folder.resolve("servers.toml"), desk.resolve("servers.toml"));
      Workshop.retarget(desk.resolve("servers.toml"), workshop.server);
      Program program = new Program(desk);
      Program.Run first = program.run("deploy", "--to", "bench");
      assertThat(first.exit()).as(first.all()).isZero();
      String page = workshop.page("/desk/");
      assertThat(page).contains("{\"api\":\"/spokes/api\",\"title\":\"Workshop counter\"}");
      assertThat(workshop.page("/desk/assets/desk-9c02d7e3.css"))
          .contains("url(\"/desk/bell.svg\")");
      assertThat(cacheControl(workshop, "/desk/")).isEqualTo("no-cache");
      assertThat(cacheControl(workshop, "/desk/assets/desk-4be81f07.js")).contains("immutable");
      assertThat(cacheControl(workshop, "/desk/assets/gone-4be81f07.js")).isEqualTo("no-cache");
      assertThat(cacheControl(workshop, "/desk/bell.svg")).isNull();
      Files.writeString(
          desk.resolve("jolly.toml"),
          "\n[for.bench.settings]\napi = \"/elsewhere/<api>\"\n",
          StandardOpenOption.APPEND);
      workshop.edit(desk.resolve("jolly.toml"), "'\"api\":\"/spokes/api\"'", "'Workshop'");
      assertThat(program.run("deploy", "--to", "bench").exit()).isZero();
      assertThat(workshop.page("/desk/"))
          .contains("{\"api\":\"/elsewhere/\\u003capi\\u003e\",\"title\":\"Workshop counter\"}");
      assertThat(program.run("undeploy", "spokes-desk", "--from", "bench").exit()).isZero();
    }
  }

  private static String cacheControl(Workshop workshop, String path) throws IOException {
    return URI.create("http://127.0.0.1:" + workshop.http + path)
        .toURL()
        .openConnection()
        .getHeaderField("Cache-Control");
  }
}
