package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The program is killed when a certain line stands in its journal; the next command settles it. */
class KillIT {
  @TempDir Path folder;

  @ParameterizedTest
  @ValueSource(ints = {9, 19})
  void killedWhenALineStandsThere(int line) throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      Trace before = workshop.trace();
      workshop.kill(journal -> journal.lines().count() >= line);
      Program.Run next = workshop.ends(0, "recover", "--on", "bench");
      assertThat(next.all()).contains("taken back").contains("Taken back");
      assertThat(workshop.processes()).isEmpty();
      workshop.trace().isAs(before);
      answersAfterTheNextDelivery(workshop);
    }
  }

  @Test
  void killedRightAfterTheServerWasForked() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.kill(journal -> Files.exists(workshop.server.resolve(".jolly/process.pid")));
      answersAfterTheNextDelivery(workshop);
    }
  }

  @Test
  void killedAfterTheProof() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", "--to", "bench");
      workshop.edit("1.4.0", "1.5.0");
      workshop.kill(journal -> journal.contains("\"line\":\"proven\""));
      Program.Run next = workshop.ends(0, "recover", "--on", "bench");
      assertThat(next.out()).containsAnyOf("Finished", "Nothing to settle");
      assertThat(workshop.page("/spokes/")).contains("version 1.5.0");
      assertThat(workshop.server.resolve("delivered/spokes").toFile().list()).hasSize(2);
      workshop.ok("deploy", "--to", "bench");
    }
  }

  private static void answersAfterTheNextDelivery(Workshop workshop) throws IOException {
    workshop.ok("deploy", "--to", "bench");
    assertThat(workshop.processes()).hasSize(1);
    assertThat(workshop.page("/spokes/")).contains("version 1.4.0");
    assertThat(workshop.server.resolve(".jolly/lock")).doesNotExist();
    assertThat(workshop.server.resolve(".jolly/backup")).doesNotExist();
  }
}
