package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A virtual host is made for the first application on it, shared, and gone with the last. */
class HostIT {
  private static final String HOST = "two.spokes.example";

  @TempDir Path folder;

  private Path described(String name, String source) throws IOException {
    Path project = Files.createDirectories(folder.resolve("desk/" + name));
    Path war =
        Wars.with(folder, Wars.listener("Start"))
            .source("Start", Wars.listenerSource("Start", source))
            .source(
                "Bell",
                "@jakarta.servlet.annotation.WebServlet(\"/\")\n"
                    + Wars.servletSource("Bell", "response.getWriter().print(\"" + name + "\");"))
            .write(name + ".war");
    Files.writeString(
        project.resolve("jolly.toml"),
        """
        name = "%s"
        artifact = "%s"
        [app]
        host = "%s"
        [[check]]
        get = "/"
        text = "%s"
        """
            .formatted(name, war, HOST, name));
    return project;
  }

  @Test
  void isSharedAndGoesWithTheLastOfItsApplications() throws IOException {
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder).odd().start()) {
      Program ring = new Program(described("ring", ""));
      Program horn = new Program(described("horn", ""));
      Program mute = new Program(described("mute", "throw new IllegalStateException(\"mute\");"));
      Program desk = new Program(folder.resolve("desk"));
      Files.writeString(folder.resolve("desk/servers.toml"), "");
      desk.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop");
      Trace before = own.trace();
      assertThat(mute.ends(5, "deploy", "--to", "shop").out())
          .contains("Taken back: shop is as it was");
      own.trace().isAs(before);

      assertThat(ring.ends(0, "deploy", "--to", "shop").out())
          .contains(HOST + ": people reach it by this name alone")
          .contains("interrupts what else runs there")
          .contains("http://" + HOST + ":" + own.http + "/ring");
      assertThat(horn.ends(0, "deploy", "--to", "shop").out())
          .doesNotContain("stop  ")
          .contains("http://" + HOST + ":" + own.http + "/horn");
      assertThat(Pages.get("http://127.0.0.1:" + own.http + "/horn/")).startsWith("404");
      assertThat(ring.ends(0, "apps", "--on", "shop").out())
          .containsPattern("/ring +ring +STARTED +200 .*host " + HOST);
      assertThat(ring.ends(0, "deploy", "--to", "shop").out()).contains("Unchanged");

      assertThat(ring.ends(0, "undeploy", "--from", "shop").out()).doesNotContain("stop  ");
      horn.ends(0, "check", "--on", "shop");
      assertThat(horn.ends(0, "undeploy", "--from", "shop").out()).contains("stop  ");
      own.trace().isAs(before);
      assertThat(own.processes()).hasSize(1);
    }
  }
}
