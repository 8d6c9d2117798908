package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Servers are made, listed, started and stopped; nothing is lost on the way. */
class ServerIT {
  @TempDir Path folder;

  @Test
  void aServerIsMadeListedStartedAndStopped() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Trace before = workshop.trace();
      assertThat(workshop.ok("server", "list")).contains("bench  Tomcat 10.1").contains("stopped");
      assertThat(workshop.ok("server", "stop", "bench")).contains("does not run");
      assertThat(workshop.ok("server", "start", "bench")).contains("Server bench started");
      assertThat(workshop.page("/")).startsWith("404");
      assertThat(workshop.page(workshop.admin, "/")).startsWith("404");
      String process = workshop.process();
      assertThat(workshop.ok("server", "start", "bench")).contains("runs already");
      assertThat(workshop.process()).isEqualTo(process);
      assertThat(workshop.ok("server", "list")).contains("runs, pid " + process.split(" ")[0]);
      workshop.ok("server", "stop", "bench");
      assertThat(workshop.processes()).isEmpty();
      workshop.trace().isAs(before);
    }
  }

  @Test
  void whatCannotBeMadeLeavesNothing() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      String described = Files.readString(workshop.folder.resolve("servers.toml"));
      assertThat(workshop.ends(3, "server", "new", "bench").err())
          .contains("servers.toml describes it already");
      assertThat(workshop.ends(3, "server", "new", "b", "--http", "" + workshop.http).err())
          .contains("server 'b': of port " + workshop.http + " for http, server 'bench' has it");
      assertThat(workshop.ends(3, "server", "new", "b", "--folder", "web").err())
          .contains("exists already. Choose another --folder");
      assertThat(workshop.ends(4, "server", "new", "b", "--java", "/nowhere").err())
          .contains("Cannot use '/nowhere' as Java");
      Path older = workshop.folder.resolve("jetty-home-12.0.16.zip");
      try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(older))) {
        zip.putNextEntry(new ZipEntry("jetty-home-12.0.16/lib/jetty-server-12.0.16.jar"));
      }
      assertThat(workshop.ends(3, "server", "new", "b", "--installation", older + "").err())
          .contains("it is Jetty 12.0.16; supported is Jetty 12.1. Give another");
      assertThat(workshop.folder.resolve("installations")).doesNotExist();
      assertThat(Files.readString(workshop.folder.resolve("servers.toml"))).isEqualTo(described);
      assertThat(workshop.folder.resolve("servers").toFile().list()).containsExactly("bench");
    }
  }

  @Test
  void aJavaThatDoesNotStartIsQuoted() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Path file = workshop.folder.resolve("servers.toml");
      Files.writeString(file, Files.readString(file) + "memory = \"1k\"\n");
      assertThat(workshop.ends(5, "server", "start", "bench").out())
          .contains("The server does not start: ")
          .contains("Too small maximum heap")
          .contains("told in logs/server.log:");
      Trace before = workshop.trace();
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains("Too small maximum heap")
          .contains("Taken back: bench is as it was");
      workshop.trace().isAs(before);
    }
  }

  @Test
  void aRestartThatFailsEndsInTheProcessAsItRanBefore() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", "--to", "bench");
      Path file = workshop.folder.resolve("servers.toml");
      String right = Files.readString(file);
      Files.writeString(
          file,
          right.replace("http = " + workshop.http, "http = " + Workshop.freePort())
              + "memory = \"1k\"\n");
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains("Too small maximum heap")
          .contains("Taken back: bench is as it was");
      assertThat(workshop.page("/spokes/")).contains("version 1.4.0");
      assertThat(workshop.processes()).hasSize(1);
      Files.writeString(file, right);
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
    }
  }

  @Test
  void anInterruptedDeliveryIsTakenBack() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      Trace before = workshop.trace();
      Path out = folder.resolve("out");
      Process process =
          workshop.program.start(out, folder.resolve("err"), "deploy", "--to", "bench");
      Path journal = workshop.server.resolve(".jolly/journal.jsonl");
      Yard.untilTold(journal, "start server");
      process.destroy();
      assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
      assertThat(process.exitValue()).isEqualTo(130);
      assertThat(Files.readString(out)).contains("Interrupted: interrupted by a signal");
      workshop.trace().isAs(before);
      assertThat(workshop.processes()).isEmpty();
      assertThat(workshop.ok("deliveries", "--on", "bench")).contains("deploy, taken back");
    }
  }

  @Test
  void twoAtATimeAreNotLetIn() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      Process first =
          workshop.program.start(
              folder.resolve("out"), folder.resolve("err"), "deploy", "--to", "bench");
      Yard.untilTold(workshop.server.resolve(".jolly/journal.jsonl"), "\"opened\"");
      assertThat(workshop.ends(9, "undeploy", "spokes", "--from", "bench").err())
          .contains("(process " + first.pid() + ") has been changing it since");
      assertThat(first.waitFor(120, TimeUnit.SECONDS)).isTrue();
      assertThat(first.exitValue()).isZero();
    }
  }
}
