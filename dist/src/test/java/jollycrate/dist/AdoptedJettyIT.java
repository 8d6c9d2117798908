package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A Jetty as its own documents make one: a folder with modules, started from there by hand. */
class AdoptedJettyIT {
  @TempDir Path folder;
  private Path home;
  private Path base;
  private Path modules;
  private int http;
  private Process process;

  @BeforeEach
  void byHand() throws IOException {
    String archive = Line.JETTY.archive().toString();
    new Program(folder).shell("tar xzf \"$0\"", archive);
    try (Stream<Path> unpacked = Files.list(folder)) {
      home =
          unpacked.filter(path -> path.toString().contains("jetty-home")).findFirst().orElseThrow();
    }
    http = Workshop.freePort();
    base = folder.resolve("base");
    modules = Files.createDirectories(base.resolve("start.d")).resolve("web.ini");
    Files.createDirectories(base.resolve("webapps"));
    Files.createDirectories(base.resolve("logs"));
    Files.writeString(
        base.resolve("start.d/http.ini"), "--module=http\njetty.http.port=" + http + "\n");
    Files.writeString(modules, "--module=ee10-deploy\n");
    start();
  }

  private void start() throws IOException {
    process =
        new ProcessBuilder("java", "-jar", home.resolve("start.jar").toString())
            .directory(base.toFile())
            .redirectErrorStream(true)
            .redirectOutput(base.resolve("logs/out.log").toFile())
            .start();
    Yard.untilTold(base.resolve("logs/out.log"), "Started oejs.Server");
  }

  @AfterEach
  void end() {
    process.destroyForcibly();
  }

  @Test
  void whatItSaysOfItselfIsToldAndNothingOfItStays() throws Exception {
    Path desk = Workshop.copySample("spokes", folder);
    Program program = Workshop.deskOf(desk);
    Trace before = Workshop.trace(base);
    assertThat(program.ends(0, "server", "adopt", base.toString(), "--name", "own").out())
        .contains(
            "Jetty 12.1", http + " on every address", "webapps, looked at when it starts only")
        .contains("runs, pid " + process.pid(), "jetty.deploy.scanInterval");
    assertThat(program.ends(4, "deploy", "--to", "own").out())
        .contains("how to start it again", "its module ee10-plus is not enabled");
    Workshop.trace(base).isAs(before);
    Files.writeString(modules, "--modules=ee10-deploy,ee10-plus\n");
    program.ends(0, "server", "stop", "own");
    assertThat(process.waitFor()).isNotZero();
    Trace stopped = Workshop.trace(base);
    try {
      assertThat(program.ends(0, "deploy", "--to", "own").out()).contains("Delivered spokes");
      Path style = desk.resolve("web/style.css");
      Files.writeString(style, Files.readString(style).replace("#1f6f5c", "#5c1f6f"));
      assertThat(program.ends(0, "deploy", "--to", "own").out()).contains("was restarted");
      program.ends(0, "undeploy", "--from", "own");
      Workshop.trace(base).isAs(stopped);
    } finally {
      program.run("server", "stop", "own");
    }
  }
}
