package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What somebody changed on the server in files of ours is kept or replaced, never silently. */
class ChangedThereIT {
  @TempDir Path folder;

  @Test
  void aPoolMadeLargerAndARoleGivenThere() throws IOException {
    try (Workshop workshop = Workshop.withUsers(folder)) {
      Path descriptor = workshop.server.resolve("conf/Catalina/localhost/spokes.xml");
      workshop.ok("deploy", "--to", "bench");
      String pool = Files.readString(descriptor);
      workshop.edit(descriptor, "maxTotal=\"5\"", "maxTotal=\"25\"");
      workshop.edit(descriptor, "<Context docBase", "<Context reloadable=\"true\" docBase");
      workshop.edit(users(workshop), "roles=\"owner\"", "roles=\"owner,treasurer\"");
      Trace byHand = workshop.trace();
      workshop.edit("1.4.0", "1.5.0");
      workshop.edit("robin", "robin2");

      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains(
              "blocker conf/Catalina/localhost/spokes.xml: was changed there since delivery 1")
          .contains("- maxTotal=\"5\"", "+ maxTotal=\"25\"", "--changed-there keep")
          .contains("+ <user username=\"robin\" password=\"(hash)\" roles=\"owner,treasurer\"/>")
          .contains("It cannot be kept (this delivery changes the same place")
          .doesNotContain(Workshop.DATABASE_PASSWORD);
      workshop.trace().isAs(byHand);
      workshop.edit("robin2", "robin");

      assertThat(workshop.ok("deploy", "--to", "bench", "--changed-there", "keep"))
          .contains("since delivery 1 stays")
          .contains("Delivered spokes 1.5.0");
      assertThat(Files.readString(descriptor))
          .contains("<Context reloadable=\"true\" docBase", "-1.5.0-", "maxTotal=\"25\"");
      assertThat(Files.readString(users(workshop))).contains("owner,treasurer");
      String process = workshop.process();
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out()).contains("since delivery 2");
      assertThat(workshop.ok("deploy", "--to", "bench", "--changed-there", "keep"))
          .contains("Unchanged");
      assertThat(workshop.process()).isEqualTo(process);

      assertThat(workshop.ends(4, "undeploy", "--from", "bench").out())
          .contains("Take it away with '--changed-there replace'");
      assertThat(workshop.ok("rollback", "--on", "bench", "--changed-there", "replace"))
          .contains(
              "what was changed there since delivery 2 is lost", "Rolled back to spokes 1.4.0");
      assertThat(Files.readString(descriptor)).isEqualTo(pool);
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Delivered spokes 1.5.0");
    }
  }

  private static Path users(Workshop workshop) throws IOException {
    try (Stream<Path> files = Files.list(workshop.server.resolve("delivered/spokes"))) {
      return files
          .filter(file -> file.getFileName().toString().startsWith("users-"))
          .findFirst()
          .orElseThrow();
    }
  }
}
