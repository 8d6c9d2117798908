package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** It is said only what is so: no success that is none, no server "stopped" that runs. */
class TruthIT {
  private static final String CLOSED = "if (new java.io.File(\"data/closed\").exists())";

  @TempDir Path folder;

  /** A listener that throws as long as a file stands there. */
  private Path moody() throws IOException {
    return Wars.with(folder, Wars.listener("Start"))
        .source(
            "Start",
            Wars.listenerSource(
                "Start", CLOSED + " throw new IllegalStateException(\"closed today\");"))
        .entry("index.html", "<p>open</p>")
        .write("moody.war");
  }

  @Test
  void whereNothingWasReallyAskedItIsUnproven() throws IOException {
    Path war =
        Wars.with(folder, Wars.servlet("Answer", "/api/*"))
            .source("Answer", Wars.servletSource("Answer", "response.getWriter().print(1);"))
            .write("answer.war");
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(workshop.ok("deploy", war.toString(), "--undescribed", "--to", "bench"))
          .contains("answers (with 404: no page at its root)")
          .contains("Delivered, unproven: answer to bench")
          .contains("[[check]]");
      assertThat(
              workshop
                  .ends(
                      4,
                      "deploy",
                      war.toString(),
                      "--undescribed",
                      "--on-admin-port",
                      "--to",
                      "bench")
                  .out())
          .contains("people reach it now", "--accept /answer");
      workshop.ok("deploy", "--to", "bench");
      workshop.edit("jdbc:h2:file:./data/spokes", "jdbc:h2:file:./data/other");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("begin with a new, empty database", "--accept jdbc/spokes");
      workshop.ok("deploy", "--to", "bench", "--accept", "jdbc/spokes", "--dry-run");
    }
  }

  /** Another member behind the proxy answers everything that the release lacks. */
  @Test
  void theAnswersOfAnotherServerProveNothing() throws IOException {
    HttpServer proxy = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    proxy.createContext(
        "/",
        exchange -> {
          exchange.sendResponseHeaders(200, 0);
          exchange.getResponseBody().write("2".getBytes());
          exchange.close();
        });
    proxy.start();
    try (Workshop workshop = Workshop.open(folder)) {
      String url = "http://127.0.0.1:" + proxy.getAddress().getPort();
      Path servers = workshop.folder.resolve("servers.toml");
      Files.writeString(servers, "url = \"" + url + "\"\n", StandardOpenOption.APPEND);
      Path lacking =
          Wars.with(folder, Wars.servlet("Answer", "/one"))
              .source("Answer", Wars.servletSource("Answer", "response.getWriter().print(1);"))
              .write("answer.war");
      String check = "artifact = \"%s\"\nname = \"answer\"\n[[check]]\nget = \"/%s\"\n";
      Path description =
          Files.createDirectories(workshop.folder.resolve("one")).resolve("jolly.toml");
      Files.writeString(description, check.formatted(lacking, "two"));
      Program desk = Workshop.deskOf(description.getParent());
      assertThat(desk.ends(5, "deploy", "--to", "bench").out())
          .contains("got      404", "http://127.0.0.1:" + workshop.http + "/answer/two");
      Files.writeString(description, check.formatted(lacking, "one") + "text = \"1\"\n");
      assertThat(desk.ends(0, "deploy", "--to", "bench").out())
          .contains("through " + url + " (another server or release answers");
      proxy.stop(0);
      assertThat(desk.ends(7, "check", "--on", "bench").out())
          .contains("FAIL  through " + url, "nothing listens there");
    }
  }

  /** What an application says goes to a dated log of its own there. */
  @Test
  void theCauseIsFoundWhereAServerLogsAsItShips() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Path installations = Program.HOME.resolveSibling("test-data");
      Path shipped;
      try (Stream<Path> folders = Files.list(installations)) {
        shipped =
            folders
                .filter(f -> f.getFileName().toString().matches("tomcat-[\\d.]+"))
                .findFirst()
                .orElseThrow();
      }
      Files.copy(
          shipped.resolve("conf/logging.properties"),
          workshop.server.resolve("conf/logging.properties"),
          StandardCopyOption.REPLACE_EXISTING);
      Path closed = workshop.server.resolve("data/closed");
      Files.createDirectories(closed.getParent());
      Files.createFile(closed);
      assertThat(
              workshop
                  .ends(5, "deploy", moody().toString(), "--undescribed", "--to", "bench")
                  .out())
          .contains("Failed: listener shop.Start threw IllegalStateException: closed today")
          .containsPattern("told in logs/localhost\\.[-\\d]+\\.log:1\\b");
    }
  }

  @Test
  void aServerThatSomebodyElseStartedIsNotTakenForStopped() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", moody().toString(), "--undescribed", "--to", "bench");
      String command =
          Files.readString(Path.of("/proc", workshop.process().split(" ")[0], "cmdline"));
      workshop.ok("server", "stop", "bench");
      String byHand = command.replaceFirst("-Djolly\\.token=[0-9a-f]+", "-Dby=hand");
      Process process =
          new ProcessBuilder(byHand.split("\0"))
              .directory(folder.toFile())
              .redirectErrorStream(true)
              .redirectOutput(folder.resolve("by-hand.log").toFile())
              .start();
      Yard.until("the port", () -> answers(workshop));
      assertThat(workshop.ok("server", "list"))
          .contains("runs, pid " + process.pid() + ", not started by jolly");
      Trace before = workshop.trace();
      assertThat(workshop.ends(4, "undeploy", "moody", "--from", "bench").out())
          .contains("Jolly Crate did not start it");
      assertThat(workshop.ends(4, "server", "restart", "bench").err())
          .contains("it works in " + folder.toRealPath() + ", and after a restart in ");
      workshop.trace().isAs(before);
      assertThat(workshop.ok("server", "stop", "bench")).contains("Server bench stopped");
      assertThat(process.waitFor()).isNotZero();
      workshop.ok("undeploy", "moody", "--from", "bench");
    }
  }

  private static boolean answers(Workshop workshop) {
    try {
      return workshop.page("/moody/").startsWith("200");
    } catch (IOException notYet) {
      return false;
    }
  }
}
