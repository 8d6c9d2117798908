package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Large servers as people unpack and start them themselves: taken over, and given back. */
@Order(2)
class AdoptedKindsIT {
  @TempDir Path folder;
  private final int http = Workshop.freePort();
  private Process process;
  private Path home;
  private Program program;

  private void unpack(Line line) throws IOException {
    assumeTrue(Files.isRegularFile(line.archive()), "fetched with -Dkinds=all");
    Path at = Files.createDirectory(folder.resolve("opt"));
    new Program(at).shell("unzip -q \"$0\"", line.archive().toString());
    try (Stream<Path> unpacked = Files.list(at)) {
      home = unpacked.findFirst().orElseThrow();
    }
    program = Workshop.deskOf(Workshop.copySample("spokes", folder));
  }

  private void byHand(Path log, String told, String... command) throws IOException {
    process =
        new ProcessBuilder(command)
            .directory(home.toFile())
            .redirectErrorStream(true)
            .redirectOutput(log.toFile())
            .start();
    Yard.untilTold(log, told);
  }

  @AfterEach
  void end() {
    if (program != null) {
      program.run("server", "stop", "own");
    }
    if (process != null) {
      process.destroyForcibly();
    }
  }

  private Trace trace(Path server) throws IOException {
    return Workshop.trace(
        server,
        "log",
        "workarea",
        "tranlog",
        "dropins",
        "resources",
        "configuration/standalone_xml_history");
  }

  @Test
  void aWildflyGoesOnAsItWasStarted() throws Exception {
    unpack(Line.WILDFLY);
    int management = Workshop.freePort();
    Path configuration = home.resolve("standalone/configuration/standalone.xml");
    Files.writeString(
        configuration,
        Files.readString(configuration)
            .replace("jboss.https.port:8443", "jboss.https.port:0")
            .replace("scan-interval=\"5000\"", "scan-interval=\"1000\""));
    byHand(
        folder.resolve("own.log"),
        "WFLYSRV0025",
        "bin/standalone.sh",
        "-Djboss.http.port=" + (http - 1),
        "-Djboss.management.http.port=" + (management - 1),
        "-Djboss.socket.binding.port-offset=1",
        "-Dbell=ding");
    Path server = home.resolve("standalone");
    Trace before = trace(server);
    assertThat(program.ends(0, "server", "adopt", home.toString(), "--name", "own").out())
        .contains("WildFly 39", http + " on 127.0.0.1", "deployments, looked at every 1 s")
        .containsPattern("management-http +" + management + " on 127.0.0.1")
        .contains("runs, pid ")
        .doesNotContain("? on");
    assertThat(Files.readString(program.folder().resolve("servers.toml")))
        .contains("-Djboss.management.http.port=" + (management - 1), "port-offset=1")
        .contains("-Dbell=ding", "512m");
    assertThat(program.ends(0, "deploy", "--to", "own").out())
        .contains("somebody else started it", "keeps passwords as MD5", "Delivered spokes");
    assertThat(program.ends(0, "deploy", "--to", "own").out()).contains("Unchanged");
    Path broken =
        Wars.with(folder, Wars.listener("Start"))
            .source(
                "Start",
                Wars.listenerSource("Start", "throw new IllegalStateException(\"no tyres\");"))
            .write("broken.war");
    assertThat(program.ends(5, "deploy", broken.toString(), "--undescribed", "--to", "own").out())
        .contains("listener shop.Start threw IllegalStateException: no tyres", "Taken back");
    program.ends(0, "undeploy", "--from", "own");
    trace(server).isAs(before);
    program.ends(0, "server", "stop", "own");
    assertThat(process.waitFor()).isNotNegative();
    assertThat(program.ends(0, "deploy", "--to", "own").out()).contains("Delivered spokes");
    assertThat(program.ends(0, "apps", "--on", "own").out()).contains("STARTED");
    program.ends(0, "undeploy", "--from", "own");
    trace(server).isAs(before);
  }

  @Test
  void anOpenLibertyIsReadOnceItPrintsEnough() throws Exception {
    unpack(Line.LIBERTY);
    Path server = Files.createDirectories(home.resolve("usr/servers/desk"));
    Path configuration = server.resolve("server.xml");
    String written =
        """
        <server>
          <featureManager><feature>pages-3.1</feature></featureManager>
          <variable name="desk.port" value="%d"/>
          <httpEndpoint id="defaultHttpEndpoint" httpPort="${desk.port}" httpsPort="-1"/>
        </server>
        """
            .formatted(http);
    Files.writeString(configuration, written);
    Files.writeString(server.resolve("jvm.options"), "# ours\n-Dbell=ding\n");
    byHand(folder.resolve("own.log"), "CWWKF0011I", "bin/server", "run", "desk");
    Trace before = trace(server);
    assertThat(program.ends(0, "server", "adopt", home.toString(), "--name", "own").out())
        .contains("Open Liberty 26", http + " on 127.0.0.1", "pages-3.1")
        .contains("does not tell what becomes of applications");
    assertThat(program.ends(4, "deploy", "--to", "own").out())
        .contains("'jolly server stop own' ends it", "<feature>jdbc-4.3</feature>")
        .contains("<feature>appSecurity-5.0</feature>");
    trace(server).isAs(before);
    program.ends(0, "server", "stop", "own");
    assertThat(process.waitFor()).isNotNegative();
    Files.writeString(configuration, written.replace("pages-3.1", "webProfile-10.0"));
    Trace stopped = trace(server);
    assertThat(program.ends(0, "deploy", "--to", "own").out()).contains("Delivered spokes");
    assertThat(arguments()).contains("-Dbell=ding");
    Path style = program.folder().resolve("web/style.css");
    Files.writeString(style, Files.readString(style).replace("#1f6f5c", "#5c1f6f"));
    assertThat(program.ends(0, "deploy", "--to", "own").out()).doesNotContain("was restarted");
    program.ends(0, "undeploy", "--from", "own");
    trace(server).isAs(stopped);
  }

  private String arguments() {
    return ProcessHandle.allProcesses()
        .map(ProcessHandle::pid)
        .map(Workshop::argumentsOf)
        .filter(arguments -> arguments.contains(home + "/bin/tools/ws-server.jar"))
        .collect(Collectors.joining());
  }
}
