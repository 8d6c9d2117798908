package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** An earlier release comes back with its description, proven, whatever became of the project. */
class RollbackIT {
  @TempDir Path folder;

  @Test
  void artifactAndDescriptionComeBackTogether() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(workshop.ends(4, "rollback", "--on", "bench").all())
          .contains("None is kept on this server yet");
      workshop.ok("deploy", "--to", "bench");
      String first = workshop.page("/spokes/");
      Trace before = workshop.trace();
      workshop.edit("1.4.0", "1.5.0");
      workshop.edit(
          workshop.folder.resolve("jolly.toml"), "path = \"/spokes\"", "path = \"/desk\"");
      workshop.ok("deploy", "--to", "bench");
      Trace second = workshop.trace();

      assertThat(workshop.ok("rollback", "--on", "bench", "--dry-run")).contains("-1.4.0-");
      workshop.trace().isAs(second);
      assertThat(workshop.ok("rollback", "--on", "bench"))
          .contains("rollback spokes 1.5.0 -> 1.4.0 on bench at /spokes")
          .contains("jdbc/spokes: its database stays as it is now")
          .contains("pass")
          .contains("Rolled back to spokes 1.4.0 on bench");
      assertThat(workshop.page("/spokes/")).isEqualTo(first);
      workshop.trace().isAs(before);

      String process = workshop.process();
      assertThat(workshop.ok("rollback", "1", "--on", "bench")).contains("Unchanged");
      assertThat(workshop.process()).isEqualTo(process);
      assertThat(workshop.ends(4, "rollback", "--on", "bench").all())
          .contains("no release is kept that stood before")
          .contains("2 (spokes 1.5.0)");
      assertThat(workshop.ok("deliveries", "3", "--on", "bench"))
          .contains(
              "rollback to 1, delivered", "steps", "--- conf/Catalina", "pass", "Rolled back");

      workshop.ok("undeploy", "--from", "bench");
      assertThat(workshop.ok("rollback", "2", "--on", "bench")).contains("at /desk", "1.5.0");
      assertThat(workshop.page("/desk/")).contains("1.5.0");
    }
  }

  /** Secrets are what they are now; nothing of them stands in what is kept. */
  @Test
  void secretsAreResolvedNow() throws IOException {
    try (Workshop workshop = Workshop.withPeople(folder)) {
      workshop.ok("deploy", "--to", "bench");
      workshop.edit("1.4.0", "1.5.0");
      workshop.ok("deploy", "--to", "bench");
      workshop.ok("watch", "--on", "bench", "--until-ready");
      try (Stream<Path> kept = Files.walk(workshop.server.resolve(".jolly"))) {
        for (Path file : kept.filter(Files::isRegularFile).toList()) {
          assertThat(Files.readString(file, StandardCharsets.ISO_8859_1))
              .doesNotContain(Workshop.OWNER_PASSWORD)
              .doesNotContain(Workshop.DATABASE_PASSWORD);
        }
      }
      Program changed = workshop.program.with("ROBIN_PASSWORD", "another way in");
      assertThat(changed.ends(0, "rollback", "--on", "bench").out())
          .contains("the owner reads the ledger")
          .contains("Rolled back to spokes 1.4.0");
      changed.with("ROBIN_PASSWORD", "no way in");
      assertThat(changed.ends(7, "watch", "--on", "bench", "--until-ready", "--within", "1s").out())
          .contains("FAIL  the owner reads the ledger: status expected 200 to 299, got 401");
      assertThat(changed.ends(7, "check", "--on", "bench", "--junit", "report.xml").out())
          .contains("401")
          .containsPattern("/ledger +kept out, 401 +kept out, 403 +WRONG: 401, is to see it");
      assertThat(workshop.folder.resolve("report.xml"))
          .content()
          .contains("tests=\"13\" failures=\"4\"", "name=\"robin may see /ledger\"")
          .contains("<failure message=\"status expected 200 to 299, got 401\">");
    }
  }

  @Test
  void whatCannotComeBackIsRefusedWithNothingTouched() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Path servers = workshop.folder.resolve("servers.toml");
      workshop.edit(servers, "admin", "earlier-releases = 1\nadmin");
      Path style = workshop.folder.resolve("web/style.css");
      List<String> colours = List.of("#1f6f5c", "#2f6f5c", "#3f6f5c", "#4f6f5c");
      for (int i = 0; i < 3; i++) {
        workshop.ok("deploy", "--to", "bench");
        workshop.edit(style, colours.get(i), colours.get(i + 1));
      }
      Trace stands = workshop.trace();
      assertThat(workshop.ends(4, "rollback", "1", "--on", "bench").all())
          .contains("its release is not kept any more")
          .contains("Kept are those of deliveries 2 (spokes 1.4.0), 3 (spokes 1.4.0)");
      try (Stream<Path> kept = Files.list(workshop.server.resolve(".jolly/releases"))) {
        Path artifact =
            kept.filter(file -> !file.toString().endsWith(".json")).findFirst().orElseThrow();
        Files.writeString(artifact, "cut");
      }
      assertThat(workshop.ends(4, "rollback", "--on", "bench").all())
          .contains("is not as it was delivered then, or is gone")
          .contains("spokes-1.4.0.war");
      workshop.trace().isAs(stands);
    }
  }

  /** With a secret in its settings file, and a file that it is a copy of. */
  @Test
  void aServiceGoesBackWithItsSettings() throws IOException {
    String reads =
        """
        var settings = new java.util.Properties();
        settings.load(new java.io.FileInputStream(args[1]));
        serve(Integer.parseInt(args[0]), settings.getProperty("greeting") + " BELL "
            + System.getenv("PASS").length());
        """;
    String[] described = {
      "[program]",
      "port = { argument = \"{value}\" }",
      "arguments = [\"{settings}\"]",
      "settings-file = \"bell.properties\"",
      "settings-from = \"bell.properties\"",
      "variables = { PASS = \"env:BELL_PASSWORD\" }"
    };
    Files.writeString(folder.resolve("bell.properties"), "greeting=early\n");
    try (Yard yard = Yard.with(folder, reads.replace("BELL", "one"), described)) {
      yard.ok("deploy", "--to", "yard");
      String first = yard.page("/");
      Trace before = yard.trace();
      yard.pack("app.jar", reads.replace("BELL", "two"));
      Files.writeString(folder.resolve("bell.properties"), "greeting=late\n");
      yard.ok("deploy", "--to", "yard");
      assertThat(yard.page("/")).contains("late two");
      Files.delete(folder.resolve("bell.properties"));
      Files.delete(folder.resolve("jolly.toml"));
      yard.ok("rollback", "--on", "yard");
      assertThat(yard.page("/")).isEqualTo(first).contains("early one");
      yard.trace().isAs(before);
    }
  }
}
