package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.spi.ToolProvider;
import java.util.stream.Stream;
import jollycrate.host.Needs;
import jollycrate.ssh.Sshd;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** On another machine servers are adopted and changed, and programs run by themselves, too. */
class RemoteServerIT {
  private static final String MODULES = "java.base,java.management,jdk.httpserver";

  @TempDir Path folder;
  private Sshd sshd;

  @BeforeEach
  void start() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    sshd = new Sshd(Files.createDirectory(folder.resolve("app1")));
  }

  @AfterEach
  void end() {
    if (sshd != null) {
      sshd.close();
    }
  }

  @Test
  void isAdoptedAndChanged() throws IOException {
    Path desk = folder.resolve("desk");
    Path described = desk.resolve("servers.toml");
    try (OwnTomcat own = new OwnTomcat(Line.TEN, folder)) {
      Program program = Program.beside(sshd, desk);
      assertThat(
              program.ends(3, "server", "adopt", "own", "--name", "shop", "--host", "app1").err())
          .contains("'own' is no whole path on 'app1'");
      assertThat(
              program
                  .ends(
                      0,
                      "server",
                      "adopt",
                      own.folder.toString(),
                      "--name",
                      "shop",
                      "--host",
                      "app1")
                  .out())
          .contains("Adopted as shop");
      program.ends(0, "server", "start", "shop");

      Trace stands = own.trace();
      String before = Files.readString(described);
      assertThat(program.ends(4, "server", "change", "shop", "https=" + sshd.port).out())
          .contains("Blocked: nothing was touched");
      assertThat(Files.readString(described)).isEqualTo(before);
      own.trace().isAs(stands);

      int https = Workshop.freePort();
      assertThat(program.ends(0, "server", "change", "shop", "https=" + https).out())
          .contains("servers.toml: it is here", "Changed shop in");
      assertThat(Files.readString(described)).contains("https = " + https, "certificate = \"sha");
      assertThat(program.ends(0, "server", "test", "shop").out())
          .containsPattern("ok +certificate +sha256:")
          .containsPattern("ok +from here ");
      program.ends(0, "server", "stop", "shop");
    }
  }

  /** It runs on a Java that came out of an archive, comes again when it is killed, and goes. */
  @Test
  void aProgramIsKeptThere() throws IOException {
    try (Yard yard =
        Yard.beside(sshd, folder.resolve("desk"), "serve(Integer.parseInt(args[0]), \"ring\");")) {
      Path jdk = folder.resolve("jdk");
      ToolProvider.findFirst("jlink")
          .orElseThrow()
          .run(
              System.out,
              System.err,
              "--add-modules",
              MODULES,
              "--strip-debug",
              "--output",
              jdk.toString());
      yard.program.shell("tar -czf jdk.tar.gz -C \"$0\" jdk", folder.toString());
      Files.writeString(
          yard.folder.resolve("servers.toml"),
          "java = { archive = \"jdk.tar.gz\" }\n",
          StandardOpenOption.APPEND);
      Trace empty = yard.trace();
      assertThat(yard.ok("deploy", "--to", "yard", "--dry-run"))
          .contains("it is not there yet, and unpacked there first, out of jdk.tar.gz");
      Path provided = sshd.folder.resolve("home/.local");
      assertThat(provided).doesNotExist();
      assertThat(yard.ok("deploy", "--to", "yard")).contains("Delivered yard");
      assertThat(yard.page("/")).isEqualTo("200 ring");
      long first = yard.program();
      assertThat(yard.ok("deploy", "--to", "yard")).contains("Unchanged");
      assertThat(yard.program()).isEqualTo(first);
      try (Stream<Path> homes = Files.list(provided.resolve("share/jolly-crate"))) {
        List<Path> javas = homes.toList();
        assertThat(javas).hasSize(1);
        assertThat(ProcessHandle.of(first).flatMap(it -> it.info().command()))
            .contains(javas.get(0).toRealPath().resolve("bin/java").toString());
      }
      Yard.kill(first);
      Yard.until("another process", () -> !Yard.runs(first) && yard.answers());
      yard.ok("undeploy", "yard", "--from", "yard");
      yard.trace().isAs(empty);
    }
  }
}
