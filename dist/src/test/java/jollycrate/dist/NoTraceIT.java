package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Deployed and undeployed: every path is as it was, and the data stays and is named. */
class NoTraceIT {
  @TempDir Path folder;

  @Test
  void whatTwoShareStaysForTheOther() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("server", "start", "bench");
      workshop.edit("name    = \"spokes\"", "name    = \"annex\"");
      workshop.edit("path = \"/spokes\"", "path = \"/annex\"");
      workshop.edit("/data/spokes\"", "/data/annex\"");
      workshop.ok("deploy", "--to", "bench");
      Trace onlyAnnex = workshop.trace();
      Files.copy(
          Program.HOME.resolve("samples/spokes/jolly.toml"),
          workshop.folder.resolve("jolly.toml"),
          StandardCopyOption.REPLACE_EXISTING);
      workshop.ok("deploy", "--to", "bench");
      assertThat(workshop.page("/annex/health")).contains("/data/annex");
      assertThat(workshop.page("/spokes/health")).contains("/data/spokes");
      workshop.ok("undeploy", "spokes", "--from", "bench");
      workshop.trace().isAs(onlyAnnex);
      assertThat(workshop.page("/annex/health")).startsWith("200");
    }
  }

  @Test
  void aRefusedDeliveryAndADryRunLeaveNothing() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", "--to", "bench", "--dry-run");
      workshop.edit("drivers/h2.jar", "drivers/none.jar");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("there is no driver at")
          .contains("Fix 'driver' of [datasource.\"jdbc/spokes\"]");
      assertThat(workshop.server.resolve(".jolly")).doesNotExist();
      assertThat(workshop.processes()).isEmpty();
    }
  }
}
