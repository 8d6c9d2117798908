package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rack.server.Rack;

/** A kind of server that nobody here knew is found in an archive beside the program. */
class StrangersKindIT {
  @TempDir Path folder;
  private Path home;
  private Path server;
  private Program program;

  @BeforeEach
  void rack() throws IOException, URISyntaxException {
    Path archive = Path.of(Rack.class.getProtectionDomain().getCodeSource().getLocation().toURI());
    home = folder.resolve("home");
    Files.createDirectories(home.resolve("bin"));
    Files.copy(Program.HOME.resolve("bin/jolly"), home.resolve("bin/jolly"));
    for (String name : new String[] {"lib", "servers", "start"}) {
      Files.createSymbolicLink(home.resolve(name), Program.HOME.resolve(name));
    }
    Files.copy(archive, Files.createDirectories(home.resolve("kinds")).resolve("rack-kind.jar"));
    Path installation = Files.createDirectories(folder.resolve("rack"));
    Files.copy(archive, installation.resolve("rack.jar"));
    program = new Program(Files.createDirectories(folder.resolve("desk")), home);
    server = folder.resolve("desk/servers/r");
    program.ends(
        0,
        "server",
        "new",
        "r",
        "--installation",
        installation.toString(),
        "--http",
        "" + Workshop.freePort());
  }

  @AfterEach
  void stop() {
    program.run("server", "stop", "r");
  }

  private Path pages(String text) throws IOException {
    return Wars.with(Files.createTempDirectory(folder, "war"))
        .entry("index.html", "<p>" + text + "</p>")
        .write("bikes.war");
  }

  private String deploy(int exit, Path war) {
    return program.ends(exit, "deploy", war.toString(), "--undescribed", "--to", "r").out();
  }

  @Test
  void itIsDeliveredToByTheSameLaws() throws IOException {
    Trace before = Workshop.trace(server);
    Path first = pages("one");
    assertThat(deploy(0, first)).contains("Rack 1", "doors", "Delivered bikes to r");
    Trace stands = Workshop.trace(server);
    assertThat(Files.readString(server.resolve("doors"))).endsWith("\nopen /bikes\n");
    assertThat(deploy(0, first)).contains("Unchanged");
    Path empty = Wars.with(folder).entry("other.html", "").write("bikes.war");
    assertThat(deploy(5, empty))
        .contains("Failed: there is no index.html in ", "Taken back: r is as it was");
    Workshop.trace(server).isAs(stands);
    deploy(0, pages("two"));
    assertThat(program.ends(0, "check", "bikes", "--on", "r").out()).contains("200");
    assertThat(program.ends(0, "server", "list").out()).contains("Rack 1", "bikes");
    assertThat(program.ends(0, "apps", "--on", "r").out()).contains("hangs").doesNotContain("only");
    program.ends(0, "undeploy", "bikes", "--from", "r");
    Workshop.trace(server).isAs(before);
    program.ends(0, "server", "stop", "r");
    deploy(0, pages("three"));
    program.ends(0, "server", "stop", "r");
    program.ends(0, "undeploy", "bikes", "--from", "r");
    Workshop.trace(server).isAs(before);
  }

  /** A mark of an earlier time proves nothing, and what a shared text says besides stays. */
  @Test
  void whatStoodThereBeforeIsNeitherProofNorOurs() throws IOException {
    Files.writeString(server.resolve("doors"), "open /lamps\n# mine\n");
    Path empty = Wars.with(folder).entry("other.html", "").write("bikes.war");
    Files.writeString(server.resolve("hooks/bikes.hung"), "/bikes\nearlier\n");
    Files.writeString(server.resolve("hooks/bikes.taken"), "");
    assertThat(deploy(5, empty)).contains("Failed: there is no index.html in ");
    assertThat(server.resolve("hooks")).isEmptyDirectory();
    deploy(0, pages("one"));
    program.ends(0, "undeploy", "bikes", "--from", "r");
    assertThat(server.resolve("hooks")).isEmptyDirectory();
    assertThat(server.resolve("doors")).hasContent("open /lamps\n# mine\n");
  }

  @Test
  void anEntryThatPeopleMadeIsNotTakenForOurs() throws IOException {
    Files.writeString(server.resolve("doors"), "open /bikes\n");
    assertThat(deploy(4, pages("one"))).contains("doors: somebody else put '/bikes' there");
    assertThat(server.resolve("doors")).hasContent("open /bikes\n");
  }

  @Test
  void whatItCannotDoItRefuses() throws IOException {
    Path war = pages("one");
    Files.writeString(
        folder.resolve("desk/jolly.toml"),
        """
        name = "bikes"
        artifact = "%s"
        [app]
        host = "bikes.example"
        [users]
        robin = "env:ROBIN_PASSWORD"
        [roles]
        owner = ["robin"]
        """
            .formatted(war));
    program.with("ROBIN_PASSWORD", Workshop.OWNER_PASSWORD);
    assertThat(program.ends(4, "deploy", "--to", "r", "--on-admin-port").out())
        .contains("it has no users", "it has no virtual hosts", "it has no admin listener");
    assertThat(server.resolve(".jolly")).doesNotExist();
  }

  @Test
  void anArchiveThatIsNoKindIsNamed() throws IOException {
    Files.delete(home.resolve("kinds/rack-kind.jar"));
    assertThat(program.ends(0, "server", "list").out()).contains("no server of a kind known here");
    Wars.empty(home.resolve("kinds"))
        .entry("META-INF/services/jollycrate.server.ServerKind", "lamps.LampKind\n")
        .write("lamps.jar");
    assertThat(program.ends(3, "server", "list").all())
        .contains("Cannot use a server kind in the folder 'kinds'", "lamps.LampKind");
  }
}
