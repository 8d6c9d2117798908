package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Twice is once: the same bytes change nothing; other bytes under the same version do. */
class TwiceIT {
  @TempDir Path folder;

  @Test
  void theSameOnceMoreAndThenOtherBytes() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Program program = workshop.program.launched();
      StartCost.of(program, 0, "--version").isAtMost(800, 15, 2);
      StartCost.of(program, 4, "check", "--on", "bench").isAtMost(2300, 30, 4);
      workshop.ok("deploy", "--to", "bench");
      String process = workshop.process();
      String log = workshop.log();
      TreeMap<String, String> files = files(workshop.server);
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged").contains("pass");
      StartCost.of(program, 0, "deploy", "--to", "bench").isAtMost(4700, 330, 10);
      assertThat(workshop.process()).isEqualTo(process);
      assertThat(workshop.log()).isEqualTo(log);
      assertThat(files(workshop.server)).isEqualTo(files);
      workshop.edit(workshop.folder.resolve("web/style.css"), "#1f6f5c", "#5c1f6f");
      assertThat(workshop.ok("deploy", "--to", "bench"))
          .contains("jdbc/spokes: the database file is open in this very server")
          .contains("Delivered spokes 1.4.0");
      assertThat(workshop.page("/spokes/style.css")).contains("#5c1f6f");
      oneApplicationIsStartedAnew(workshop);
      aServerThatMovedToAnotherPortIsAskedThere(workshop);
    }
  }

  /** With its server's process, other bytes of nothing, and no number of a delivery. */
  private static void oneApplicationIsStartedAnew(Workshop workshop) throws IOException {
    String process = workshop.process();
    Trace before = workshop.trace();
    int printed = workshop.log().length();
    assertThat(workshop.ok("app", "restart", "--on", "bench"))
        .contains("restart spokes 1.4.0 on bench", "pass", "Restarted spokes 1.4.0 on bench");
    assertThat(workshop.log().substring(printed)).contains("Undeploying context [/spokes]");
    assertThat(workshop.process()).isEqualTo(process);
    workshop.trace().isAs(before);
    assertThat(workshop.ok("deliveries", "--on", "bench")).doesNotContain("  3  ");
    workshop.ok("server", "stop", "bench");
    assertThat(workshop.ends(4, "app", "restart", "--on", "bench").all())
        .contains("'jolly server start bench'");
  }

  private static TreeMap<String, String> files(Path server) throws IOException {
    TreeMap<String, String> files = new TreeMap<>();
    try (Stream<Path> all = Files.walk(server)) {
      for (Path path : all.filter(p -> !p.startsWith(server.resolve("data"))).toList()) {
        files.put(
            path.toString(),
            Files.getLastModifiedTime(path) + " " + Files.getAttribute(path, "unix:ino"));
      }
    }
    return files;
  }

  /** What is on record of an application is where its server answered once. */
  private static void aServerThatMovedToAnotherPortIsAskedThere(Workshop workshop)
      throws IOException {
    int other = Workshop.freePort();
    Path servers = workshop.folder.resolve("servers.toml");
    workshop.edit(servers, "http = " + workshop.http, "http = " + other);
    workshop.ok("server", "start", "bench");
    assertThat(workshop.ok("check", "--on", "bench")).contains("127.0.0.1:" + other + "/spokes");
    assertThat(workshop.ok("server", "list")).contains("127.0.0.1:" + other + "/spokes");
    String process = workshop.process();
    assertThat(workshop.ok("deploy", "--to", "bench")).contains("(delivery 3)");
    assertThat(workshop.ok("deliveries", "--on", "bench", "--json")).contains(other + "/spokes");
    assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
    assertThat(workshop.process()).isEqualTo(process);
  }
}
