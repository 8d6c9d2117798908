package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import jollycrate.host.Needs;
import jollycrate.ssh.Sshd;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A server on another machine keeps the same laws, behind a real SSH server. */
@Order(2)
class RemoteIT {
  @TempDir Path folder;
  private Sshd sshd;
  private OwnTomcat own;
  private Program program;

  @BeforeEach
  void start() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    sshd = new Sshd(Files.createDirectory(folder.resolve("app1")));
    own = new OwnTomcat(Line.TEN, folder);
    program = own.behind(sshd, folder.resolve("desk"));
  }

  @AfterEach
  void end() {
    if (own != null) {
      own.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  private Program.Run deploys(int exit, Path war) {
    return program.ends(exit, "deploy", war.toString(), "--undescribed", "--to", "shop");
  }

  private String page() throws IOException {
    return Pages.get("http://127.0.0.1:" + own.http + "/bell/");
  }

  @Test
  void isDeliveredProvenTakenBackAndGoneWithoutATrace() throws IOException {
    Path war = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
    Trace empty = own.trace();
    assertThat(
            program
                .ends(0, "deploy", war.toString(), "--undescribed", "--to", "shop", "--dry-run")
                .out())
        .contains("A dry run: nothing was changed");
    own.trace().isAs(empty);
    assertThat(own.folder.resolve(".jolly")).doesNotExist();

    assertThat(deploys(0, war).out())
        .contains("Delivered bell to shop", "http://127.0.0.1:" + own.http + "/bell");
    assertThat(page()).isEqualTo("200 ring");
    Trace stands = own.trace();
    List<Long> process = own.processes();
    assertThat(deploys(0, war).out()).contains("Unchanged");
    own.trace().isAs(stands);
    assertThat(own.processes()).hasSize(1).isEqualTo(process);

    Path bad =
        Wars.with(folder, Wars.listener("Start"))
            .source(
                "Start", Wars.listenerSource("Start", "throw new IllegalStateException(\"mute\");"))
            .write("bad.war");
    Files.move(bad, war, StandardCopyOption.REPLACE_EXISTING);
    assertThat(deploys(5, war).out())
        .contains("IllegalStateException: mute", "Taken back: shop is as it was");
    own.trace().isAs(stands);
    assertThat(page()).isEqualTo("200 ring");

    assertThat(program.ends(0, "server", "list").out())
        .contains("http://127.0.0.1:" + own.http + "/bell");
    assertThat(program.ends(0, "host", "test", "app1").out())
        .containsPattern("ok +server shop +Tomcat 10.1.59, " + own.folder);
    assertThat(program.ends(0, "server", "log", "shop").out()).contains("mute");
    program.ends(0, "undeploy", "bell", "--from", "shop");
    program.ends(0, "server", "stop", "shop");
    Files.deleteIfExists(own.folder.resolve("conf/Catalina/localhost"));
    Files.deleteIfExists(own.folder.resolve("conf/Catalina"));
    own.trace().isAs(empty);
    sshd.close();
    assertThat(deploys(8, Wars.empty(folder).entry("index.html", "x").write("x.war")).err())
        .contains("it refuses connections");
    assertThat(program.ends(0, "server", "list").out()).contains("it refuses connections");
  }

  /** A delivery whose application starts only when it is let. */
  private final class Slow {
    final Path begun = folder.resolve("begun");
    final Path gate = folder.resolve("gate");
    private final Path out = folder.resolve("out");
    private final Path err = folder.resolve("err");
    private final Process jolly;

    Slow(Path war) throws IOException {
      Files.deleteIfExists(begun);
      Files.deleteIfExists(gate);
      Path slow =
          Wars.with(folder, Wars.listener("Start"))
              .source("Start", Wars.listenerSource("Start", Wars.waiting(begun, gate)))
              .entry("index.html", "rang")
              .write("slow.war");
      Files.move(slow, war, StandardCopyOption.REPLACE_EXISTING);
      jolly = program.start(out, err, "deploy", war.toString(), "--undescribed", "--to", "shop");
      Yard.until("its start", () -> Files.exists(begun));
    }

    String ends(int exit) throws Exception {
      int code = jolly.waitFor();
      String told = Files.readString(out) + Files.readString(err);
      assertThat(code).as(told).isEqualTo(exit);
      return told;
    }
  }

  @Test
  void aLineThatIsCutForAMomentIsTakenUpAgain() throws Exception {
    Path war = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
    deploys(0, war);
    Slow slow = new Slow(war);
    sshd.cut();
    Files.createFile(slow.gate);
    assertThat(slow.ends(0)).contains("Delivered", "was cut for a moment and taken up again");
    assertThat(page()).isEqualTo("200 rang");
    assertThat(own.folder.resolve(".jolly/lock")).doesNotExist();
    assertThat(deploys(0, war).out()).contains("Unchanged");
  }

  /** The lock goes with the line, the new release waits alone; the next command settles it. */
  @Test
  void aLineThatStaysCutIsSettledByTheNextCommand() throws Exception {
    Path war = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
    deploys(0, war);
    Trace stands = own.trace();
    Slow slow = new Slow(war);
    sshd.close();
    assertThat(slow.ends(6)).contains("the connection was cut", "jolly recover");
    sshd.start();
    Files.createFile(slow.gate);
    assertThat(program.ends(0, "recover", "--on", "shop").all()).contains("Taken back");
    own.trace().isAs(stands);
    assertThat(page()).isEqualTo("200 ring");
    assertThat(own.processes()).hasSize(1);
  }
}
