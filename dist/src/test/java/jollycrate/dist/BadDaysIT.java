package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Needs;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever happens to the server or its disk meanwhile, nothing is lost and the message tells. */
@Order(2)
class BadDaysIT {
  @TempDir Path folder;

  private Path started(String name, String statement) throws IOException {
    return Wars.with(folder, Wars.listener("Start"))
        .source("Start", Wars.listenerSource("Start", statement))
        .write(name + ".war");
  }

  /** The server is killed while the new release starts: the earlier one answers again. */
  @Test
  void theServerIsKilledWhileAReleaseStarts() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      Path begun = folder.resolve("begun");
      Path right = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
      workshop.ok("deploy", right.toString(), "--undescribed", "--to", "bench");
      Trace before = workshop.trace();
      Path slow =
          Wars.with(folder, Wars.listener("Start"))
              .source(
                  "Start",
                  Wars.listenerSource("Start", Wars.waiting(begun, folder.resolve("gate"))))
              .write("slow.war");
      Path again = Files.move(slow, right, StandardCopyOption.REPLACE_EXISTING);
      Process jolly =
          workshop.program.start(
              folder.resolve("out"),
              folder.resolve("err"),
              "deploy",
              again.toString(),
              "--undescribed",
              "--to",
              "bench");
      Yard.until("its start", () -> Files.exists(begun));
      workshop.processes().forEach(Yard::kill);
      Yard.until("the end", () -> !jolly.isAlive());
      assertThat(jolly.exitValue()).as(Files.readString(folder.resolve("out"))).isEqualTo(5);
      assertThat(Files.readString(folder.resolve("out"))).contains("the server's process ended");
      workshop.trace().isAs(before);
      assertThat(workshop.page("/bell/")).isEqualTo("200 ring");
    }
  }

  /** The server is killed while it is itself changed: it runs as it did. */
  @Test
  void theServerIsKilledWhileItIsChanged() throws Exception {
    try (Workshop workshop = Workshop.open(folder)) {
      Path begun = folder.resolve("begun");
      Path gate = Files.createFile(folder.resolve("gate"));
      Path slow = started("bell", Wars.waiting(begun, gate));
      workshop.ok("deploy", slow.toString(), "--undescribed", "--to", "bench");
      Trace before = workshop.trace();
      String servers = Files.readString(workshop.folder.resolve("servers.toml"));
      Files.delete(begun);
      Files.delete(gate);
      Process jolly =
          workshop.program.start(
              folder.resolve("out"),
              folder.resolve("err"),
              "server",
              "change",
              "bench",
              "memory=200m");
      Yard.until("its start", () -> Files.exists(begun));
      Files.delete(begun);
      workshop.processes().forEach(Yard::kill);
      Yard.until("the start again", () -> Files.exists(begun));
      Files.createFile(gate);
      Yard.until("the end", () -> !jolly.isAlive());
      assertThat(jolly.exitValue()).as(Files.readString(folder.resolve("out"))).isEqualTo(5);
      workshop.trace().isAs(before);
      assertThat(Files.readString(workshop.folder.resolve("servers.toml"))).isEqualTo(servers);
      assertThat(workshop.processes()).hasSize(1);
    }
  }

  /** A release fills the disk and throws; then the disk can be read only; then there is no room. */
  @Test
  void theDiskFillsUpAndIsReadOnly() throws Exception {
    Needs.root();
    Path disk = Files.createDirectory(folder.resolve("disk"));
    Program shell = new Program(folder);
    assumeTrue(shell.shell("mount -t tmpfs -o size=24m tmpfs \"$0\"", disk.toString()).exit() == 0);
    try (Workshop workshop = Workshop.open(disk)) {
      workshop.program.launched();
      Path right = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
      workshop.ok("deploy", right.toString(), "--undescribed", "--to", "bench");
      Trace before = workshop.trace();
      Path greedy =
          Wars.with(folder, Wars.listener("Start"))
              .source(
                  "Start",
                  Wars.listenerSource(
                      "Start",
                      """
                      try (java.io.OutputStream out = new java.io.FileOutputStream("data")) {
                        while (true) {
                          out.write(new byte[4096]);
                        }
                      } catch (java.io.IOException full) {
                        throw new java.io.UncheckedIOException(full);
                      }
                      """))
              .write("greedy.war");
      Files.move(greedy, right, StandardCopyOption.REPLACE_EXISTING);
      assertThat(
              workshop.ends(5, "deploy", right.toString(), "--undescribed", "--to", "bench").out())
          .contains("IOException: No space left on device")
          .contains("Taken back: bench is as it was");
      Files.delete(workshop.server.resolve("data"));
      workshop.trace().isAs(before);
      assertThat(workshop.page("/bell/")).isEqualTo("200 ring");

      Path large = Wars.empty(folder).entry("index.html", "x").write("large.war");
      Files.write(
          disk.resolve("filler"), new byte[(int) Files.getFileStore(disk).getUsableSpace()]);
      assertThat(
              workshop.ends(4, "deploy", large.toString(), "--undescribed", "--to", "bench").all())
          .contains("its disk has", "Make room there");
      Files.delete(disk.resolve("filler"));
      workshop.ok("server", "stop", "bench");
      assertThat(shell.shell("mount -o remount,ro \"$0\"", disk.toString()).exit()).isZero();
      assertThat(workshop.ends(4, "server", "harden", "bench", "--dry-run").all())
          .doesNotContain("fault");
      assertThat(workshop.ends(4, "server", "change", "bench", "memory=200m").all())
          .contains("cannot write in the server's folder");
      assertThat(
              workshop.ends(4, "deploy", large.toString(), "--undescribed", "--to", "bench").all())
          .contains("cannot write in the server's folder");
      assertThat(shell.shell("mount -o remount,rw \"$0\"", disk.toString()).exit()).isZero();
      workshop.trace().isAs(before);
      workshop.ok("server", "start", "bench");
      workshop.ok("check", "bell", "--on", "bench");
    } finally {
      shell.shell("umount -l \"$0\"", disk.toString());
    }
  }

  /** Whoever may not look or write somewhere is told where and whose it is. */
  @Test
  void rightsAreTakenAway() throws Exception {
    Needs.root();
    try (Workshop workshop = Workshop.open(folder)) {
      Path war = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
      workshop.ok("deploy", war.toString(), "--undescribed", "--to", "bench");
      Program shell = new Program(workshop.program.folder());
      String open = "d=$0; while [ \"$d\" != /tmp ]; do chmod a+x \"$d\"; d=${d%/*}; done";
      shell.shell("chown -R nobody:nogroup . && " + open, workshop.server.toString());
      String descriptors = "conf/Catalina/localhost";
      shell.shell(
          "chown root \"$0\" && chmod 755 \"$0\"", workshop.server.resolve(descriptors).toString());
      Trace before = workshop.trace();
      Program.Run refused = asNobody(shell, "undeploy", "bell", "--from", "bench");
      assertThat(refused.all())
          .contains(descriptors + "' belongs to root (rwx", "Run this as root, or let nobody in")
          .contains("Taken back: bench is as it was");
      assertThat(refused.exit()).isEqualTo(5);
      shell.shell("chmod 000 \"$0\"", workshop.server.resolve(".jolly").toString());
      for (String act : new String[] {"deploy " + war + " --undescribed", "undeploy bell"}) {
        refused = asNobody(shell, (act + " --on bench").split(" "));
        assertThat(refused.all()).contains("belongs to nobody (---------). Change its mode");
        assertThat(refused.exit()).isEqualTo(4);
      }
      assertThat(asNobody(shell, "server", "list").out()).contains("bench    unknown");
      workshop.trace().isAs(before);
      shell.shell("chmod 700 \"$0\"", workshop.server.resolve(".jolly").toString());
      assertThat(workshop.page("/bell/")).isEqualTo("200 ring");
    }
  }

  private static Program.Run asNobody(Program program, String... arguments) {
    String as = "exec setpriv --reuid=65534 --regid=65534 --clear-groups \"$0\" \"$@\"";
    List<String> command = new ArrayList<>(List.of(Program.HOME.resolve("bin/jolly").toString()));
    command.addAll(List.of(arguments));
    return program.shell(as, command.toArray(String[]::new));
  }
}
