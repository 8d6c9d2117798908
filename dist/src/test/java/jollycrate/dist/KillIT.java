package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The program is killed when a certain line stands in its journal; the next command settles it. */
class KillIT {
  @TempDir Path folder;

  @Test
  void killedRightAfterTheServerWasForked() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.kill(journal -> Files.exists(workshop.server.resolve(".jolly/process.pid")));
      answersAfterTheNextDelivery(workshop);
      killedOnceItIsProven(workshop);
    }
  }

  private static void killedOnceItIsProven(Workshop workshop) throws Exception {
    workshop.edit(workshop.folder.resolve("web/style.css"), "#1f6f5c", "#5c1f6f");
    workshop.kill(journal -> journal.contains("\"line\":\"proven\""));
    assertThat(workshop.ok("recover", "--on", "bench"))
        .containsAnyOf("Finished", "Nothing to settle");
    assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
  }

  private static void answersAfterTheNextDelivery(Workshop workshop) throws IOException {
    workshop.ok("deploy", "--to", "bench");
    assertThat(workshop.processes()).hasSize(1);
    assertThat(workshop.page("/spokes/")).contains("version 1.4.0");
    assertThat(workshop.server.resolve(".jolly/lock")).doesNotExist();
    assertThat(workshop.server.resolve(".jolly/backup")).doesNotExist();
  }
}
