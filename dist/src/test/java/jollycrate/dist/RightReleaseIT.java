package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** When the command returns, the right release answers: the new one, or the old one again. */
class RightReleaseIT {
  @TempDir Path folder;

  @Test
  void thoughTheServerLooksRarely() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.edit(
          workshop.server.resolve("conf/server.xml"),
          "backgroundProcessorDelay=\"1\"",
          "backgroundProcessorDelay=\"10\"");
      workshop.ok("deploy", "--to", "bench");
      workshop.edit("1.4.0", "1.5.0").ok("deploy", "--to", "bench");
      assertThat(workshop.page("/spokes/")).contains("version 1.5.0");
      workshop.edit("1.5.0", "1.6.0").ends(5, "deploy", "--to", "bench");
      assertThat(workshop.page("/spokes/")).contains("version 1.5.0");
    }
  }
}
