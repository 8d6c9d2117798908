package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One application is stopped and started; its server and all else there go on. */
class AppTurnIT {
  @TempDir Path folder;

  @Test
  void oneIsStoppedStaysSoAndIsStartedAgain() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Program program = workshop.program;
      Path war = Wars.empty(folder).write("bell.war");
      program.ends(0, "deploy", war.toString(), "--undescribed", "--to", "bench");
      Trace before = Workshop.trace(program.folder().resolve("servers/bench"));
      program.ends(0, "deploy", "--to", "bench");
      assertThat(program.ends(0, "app", "stop", "--on", "bench").out())
          .contains("Stopped spokes 1.4.0 on bench");
      assertThat(program.ends(0, "app", "stop", "--on", "bench").out())
          .contains("is stopped already");
      assertThat(program.ends(0, "apps", "--on", "bench").out())
          .containsPattern("/spokes +spokes 1.4.0 +stopped +404")
          .containsPattern("/bell +bell +STARTED");
      assertThat(program.ends(4, "check", "--on", "bench").err()).contains("it is stopped");
      assertThat(program.ends(0, "server", "restart", "bench").out()).contains("restarted");
      assertThat(program.ends(0, "server", "change", "bench", "memory=200m").out())
          .contains("Changed bench");
      assertThat(program.ends(0, "app", "start", "--on", "bench").out())
          .contains("Started spokes 1.4.0 on bench", "open tickets are listed");
      Path descriptor =
          program.folder().resolve("servers/bench/conf/Catalina/localhost/spokes.xml");
      byte[] text = Files.readAllBytes(descriptor);
      Files.delete(descriptor);
      assertThat(program.ends(4, "app", "stop", "--on", "bench").out())
          .contains("the file that switches it is gone", "Deliver it again");
      Files.write(descriptor, text);
      program.ends(0, "app", "stop", "--on", "bench");
      assertThat(program.ends(0, "deploy", "--to", "bench").out()).contains("Delivered spokes");
      program.ends(0, "app", "stop", "--on", "bench");
      program.ends(0, "undeploy", "--from", "bench");
      Workshop.trace(program.folder().resolve("servers/bench")).isAs(before);
      program.ends(0, "server", "stop", "bench");
      assertThat(program.ends(4, "app", "stop", "bell", "--on", "bench").out())
          .contains("'jolly server start bench' starts it");
    }
  }
}
