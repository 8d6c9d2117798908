package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The way that everybody takes: made or adopted, delivered to, changed, failed, rolled back, taken
 * away. After each step every command that only reads reads, and says what is so.
 */
class PlainWayIT {
  private static final String BELL = "/bell";

  @TempDir Path folder;
  private Program desk;
  private String server;

  private Path bell(String text) throws IOException {
    return Wars.empty(Files.createTempDirectory(folder, "war"))
        .source(
            "Bell",
            "@jakarta.servlet.annotation.WebServlet(\"/\")\n"
                + Wars.servletSource("Bell", "response.getWriter().print(\"" + text + "\");"))
        .write("bell.war");
  }

  private void describe(Path war, String expected) throws IOException {
    Files.writeString(
        desk.folder().resolve("jolly.toml"),
        """
        name = "bell"
        artifact = "%s"
        [[check]]
        get = "/"
        text = "%s"
        """
            .formatted(war, expected));
  }

  /** What is said of the server and of what stands on it; nothing may fail by what stands there. */
  private void reads(boolean delivered) {
    assertThat(desk.ends(0, "server", "test", server).out()).contains("Right: " + server);
    assertThat(desk.ends(0, "server", "list").out()).contains(server);
    String apps = desk.ends(0, "apps", "--on", server).out();
    assertThat(apps.contains(BELL + " ")).as(apps).isEqualTo(delivered);
    assertThat(desk.ends(0, "settings", "--on", server).out()).contains("server " + server);
    assertThat(desk.run("deliveries", "--on", server).exit()).isZero();
    desk.ends(0, "server", "log", server);
    desk.ends(delivered ? 0 : 4, "check", "bell", "--on", server);
  }

  private void walk() throws IOException {
    describe(bell("one"), "one");
    desk.ends(0, "deploy", "--to", server, "--dry-run");
    desk.ends(0, "deploy", "--to", server);
    reads(true);
    assertThat(desk.ends(0, "deploy", "--to", server).out()).contains("Unchanged");
    describe(bell("two"), "two");
    desk.ends(0, "deploy", "--to", server);
    describe(bell("three"), "four");
    assertThat(desk.ends(5, "deploy", "--to", server).out()).contains("Taken back");
    describe(bell("two"), "two");
    reads(true);
    assertThat(desk.ends(0, "rollback", "--on", server).out()).contains("Rolled back to bell");
    describe(bell("one"), "one");
    reads(true);
    assertThat(desk.ends(0, "undeploy", "--from", server).out()).contains("Removed");
    reads(false);
  }

  @Test
  void onAPracticeServer() throws IOException {
    desk = new Program(Files.createDirectory(folder.resolve("desk")));
    server = "bench";
    int port = Workshop.freePort();
    desk.ends(0, "server", "new", server, "--http", "" + port);
    Workshop.startsLightly(desk.folder().resolve("servers.toml"));
    try {
      desk.ends(0, "server", "start", server);
      reads(false);
      walk();
    } finally {
      desk.run("server", "stop", server);
    }
  }

  /** With an archive of somebody in its folder of applications, unpacked by the server. */
  @Test
  void onAServerThatHasApplicationsAlready() throws IOException {
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder)) {
      Path theirs = Wars.empty(folder).entry("index.html", "theirs").write("shop.war");
      Path there = Files.copy(theirs, own.folder.resolve("webapps/shop.war"));
      desk = new Program(Files.createDirectory(folder.resolve("desk")));
      server = "shop";
      own.start();
      assertThat(desk.ends(0, "server", "adopt", own.folder.toString(), "--name", server).out())
          .contains("/shop");
      reads(false);
      assertThat(desk.ends(4, "deploy", theirs.toString(), "--undescribed", "--to", server).out())
          .contains("stands at this context path", "seen  webapps/shop", "delete webapps/shop");
      walk();
      assertThat(List.of(there, own.folder.resolve("webapps/shop/index.html")))
          .allMatch(Files::isRegularFile);
    }
  }
}
