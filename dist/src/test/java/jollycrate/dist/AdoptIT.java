package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A server that people have comes out of our hands as it was, but for what was asked. */
@Order(2)
class AdoptIT {
  @TempDir Path folder;

  private Program sample(Line line) throws IOException {
    Path project = Workshop.copySample("spokes", folder);
    if (line.namespace.equals("javax")) {
      Path file = project.resolve("jolly.toml");
      String text = Files.readString(file);
      Files.writeString(file, text.replace("pack = \"war\"", "pack = \"javax\""));
    }
    return Workshop.deskOf(project);
  }

  @Test
  void deliveredToWhileItRunsAndGivenBack() throws IOException {
    Line line = Line.ELEVEN;
    Path etc = folder.toRealPath().resolve("etc");
    Path log = folder.toRealPath().resolve("log");
    try (OwnTomcat own = new OwnTomcat(line, folder).odd().linked(etc, log).start()) {
      Program program = sample(line);
      Trace before = own.trace(etc);
      List<Long> process = own.processes();
      assertThat(program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop").out())
          .contains("Tomcat " + line.version)
          .containsPattern("HTTP +" + own.http + " on every address +conf/server.xml:\\d+")
          .containsPattern("serves +apps, looked at every 10 s")
          .contains("runs, pid " + process.get(0))
          .containsPattern("/manager +apps/manager")
          .contains("bin/setenv.sh");
      assertThat(program.ends(0, "server", "test", "shop").out())
          .containsPattern("ok +answers +\\d+ at http://127.0.0.1:" + own.http)
          .contains("Right: shop is as it is described");
      own.trace(etc).isAs(before);
      assertThat(program.ends(0, "deploy", "--to", "shop").out())
          .contains("somebody else started it")
          .contains("conf/Shop/desk.example/spokes.xml");
      assertThat(program.ends(0, "deploy", "--to", "shop").out()).contains("Unchanged");
      program.ends(0, "undeploy", "--from", "shop");
      assertThat(own.processes()).isEqualTo(process);
      own.trace(etc).isAs(before);
      assertThat(program.ends(0, "server", "remove", "shop", "--delete").out())
          .contains("Deleted our records there");
      assertThat(own.folder.resolve(".jolly")).doesNotExist();
      assertThat(program.ends(0, "server", "list").out()).doesNotContain("shop");
      assertThat(own.processes()).isEqualTo(process);
      own.trace(etc).isAs(before);
    }
  }

  @Test
  void startedByItsOwnScriptAndStoppedAgainWhenTakenBack() throws IOException {
    Line line = Line.NINE;
    try (OwnTomcat own = new OwnTomcat(line, folder)) {
      own.server(text -> text.replace("autoDeploy=\"true\"", "autoDeploy=\"false\""));
      Program program = sample(line);
      Trace before = own.trace();
      assertThat(program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop").out())
          .contains("each delivery restarts the server");
      Path broken =
          Wars.with(folder, Wars.listener("Start"))
              .using(line.namespace)
              .source(
                  "Start",
                  Wars.listenerSource("Start", "throw new IllegalStateException(\"no tyres\");"))
              .write("broken.war");
      assertThat(
              program.ends(5, "deploy", broken.toString(), "--undescribed", "--to", "shop").out())
          .contains("Failed: listener shop.Start threw IllegalStateException: no tyres")
          .contains("Taken back: shop is as it was");
      assertThat(own.processes()).isEmpty();
      own.trace().isAs(before);
      program.ends(0, "deploy", "--to", "shop");
      List<Long> process = own.processes();
      assertThat(process).hasSize(1);
      assertThat(Files.readString(Path.of("/proc/" + process.get(0) + "/cmdline")))
          .contains("-Dbell=ding");
      assertThat(program.ends(0, "undeploy", "--from", "shop").out())
          .contains("interrupts what else runs there: /, /docs, /examples");
      assertThat(own.printedSince("Starting Servlet engine")).contains("Server startup in");
      Path odd = Files.createDirectory(own.folder.resolve("webapps/two words"));
      assertThat(program.ends(0, "apps", "--on", "shop").out()).contains("/two words");
      Files.delete(odd);
      program.ends(0, "server", "stop", "shop");
      own.trace().isAs(before);
    }
  }

  /** Whose folder is root's runs as him to whom its applications belong, and can read ours. */
  @Test
  @EnabledIfSystemProperty(named = "user.name", matches = "root")
  void whatRootDeliversBelongsToWhomTheServerRunsAs() throws IOException {
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder).of("nobody")) {
      Program program = sample(Line.ELEVEN);
      program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop");
      Trace before = own.trace();
      Path war =
          Wars.empty(folder)
              .source(
                  "Bell",
                  "@jakarta.servlet.annotation.WebServlet(\"/\")\n"
                      + Wars.servletSource("Bell", "response.getWriter().print(\"ding\");"))
              .write("bell.war");
      assertThat(program.ends(0, "deploy", war.toString(), "--undescribed", "--to", "shop").out())
          .contains("runs as nobody");
      assertThat(OwnTomcat.userOf(own.processes().get(0))).isEqualTo("nobody");
      Path descriptor = own.folder.resolve("conf/Catalina/localhost/bell.xml");
      assertThat(Files.getOwner(descriptor).getName()).isEqualTo("nobody");
      assertThat(Pages.get("http://127.0.0.1:" + own.http + "/bell/")).contains("ding");
      assertThat(program.ends(0, "apps", "--on", "shop").out())
          .containsPattern("/bell +bell +STARTED");
      program.ends(0, "undeploy", "bell", "--from", "shop");
      program.ends(0, "server", "stop", "shop");
      own.trace().isAs(before);
    }
  }

  /** What a start command is about to start is not there yet, and is not overlooked. */
  @Test
  void killedWhileItsStartCommandRunsThenRecovered() throws IOException {
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder)) {
      Program program = sample(Line.ELEVEN);
      Path gate = folder.resolve("gate");
      Path slow = own.folder.resolve("bin/slow.sh");
      Files.writeString(
          slow,
          "#!/bin/sh\nuntil [ -e '" + gate + "' ]; do sleep 0.1; done\nexec bin/startup.sh\n");
      Files.setPosixFilePermissions(slow, PosixFilePermissions.fromString("rwxr-xr-x"));
      program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop");
      Path servers = program.folder().resolve("servers.toml");
      Files.writeString(
          servers, Files.readString(servers).replace("bin/startup.sh", "bin/slow.sh"));
      Trace before = own.trace();
      Path out = folder.resolve("out");
      Process jolly = program.start(out, folder.resolve("err"), "deploy", "--to", "shop");
      Path journal = own.folder.resolve(".jolly/journal.jsonl");
      Yard.until("the start", () -> text(journal).contains("start server"));
      Yard.until("its command", () -> runs(slow));
      jolly.destroyForcibly();
      Yard.until("its end", () -> !jolly.isAlive());
      assertThat(program.ends(0, "server", "list").out()).contains("unknown");
      Process recovery = program.start(out, folder.resolve("err"), "recover", "--on", "shop");
      Yard.until("the recovery", () -> text(folder.resolve("err")).contains("taken back now"));
      Files.createFile(gate);
      Yard.until("the end of the recovery", () -> !recovery.isAlive());
      assertThat(recovery.exitValue()).as(text(out)).isZero();
      assertThat(own.processes()).isEmpty();
      own.trace().isAs(before);
    }
  }

  private static boolean runs(Path script) {
    return ProcessHandle.allProcesses()
        .anyMatch(
            handle -> text(Path.of("/proc/" + handle.pid() + "/cmdline")).contains(script + "\0"));
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException notThere) {
      return "";
    }
  }

  /** Of passwords only that they are bad; of pages only those that are open. */
  @ParameterizedTest
  @EnumSource(names = {"NINE", "TEN", "ELEVEN"})
  void whoMayAdministerItIsTold(Line line) throws IOException {
    try (OwnTomcat own = new OwnTomcat(line, folder)) {
      Path users = own.folder.resolve("conf/tomcat-users.xml");
      String added =
          """
          <user username="robin" password="tandem bell" roles="manager-gui"/>
          <user username="sam" password="SAM" roles="admin-gui,manager-script"/>
          <user username="kim" password="%s$1000$%s" roles=""/>
          </tomcat-users>"""
              .formatted("ab".repeat(16), "cd".repeat(32));
      Files.writeString(users, Files.readString(users).replace("</tomcat-users>", added));
      Path open = own.folder.resolve("webapps/host-manager/META-INF/context.xml");
      Files.writeString(open, "<Context privileged=\"true\"/>");
      Program program = sample(line);
      assertThat(program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop").all())
          .containsPattern("warn +user robin: .*manager-gui.*stands there in plain text")
          .containsPattern("warn +user sam: .*admin-gui, manager-script. is one that everybody")
          .containsPattern("seen +conf/tomcat-users.xml:\\d+")
          .containsPattern("warn +/host-manager: .*open to whoever reaches its port")
          .containsPattern("warn +samples: ")
          .doesNotContain("user kim", "warn    /manager", "tandem bell");
      assertThat(program.run("server", "test", "shop").out())
          .containsPattern("doubt +user sam +the password of this user")
          .doesNotContain("tandem bell");
    }
  }

  @Test
  void whatCannotWorkThereIsForeseen() throws IOException {
    Line line = Line.ELEVEN;
    try (OwnTomcat own = new OwnTomcat(line, folder)) {
      Program program = sample(line);
      String[] adopt = {"server", "adopt", own.folder.toString(), "--name", "shop"};
      assertThat(program.ends(3, "server", "adopt", "web", "--name", "shop").err())
          .contains("it is no server of a kind known here")
          .contains("--installation PATH");
      assertThat(program.ends(2, "server", "adopt", own.folder.toString()).err())
          .contains("add --name NAME");
      program.ends(0, adopt);
      assertThat(program.ends(3, adopt).err()).contains("servers.toml describes it already");
      Trace before = own.trace();
      int other = Workshop.freePort();
      own.server(text -> text.replace("port=\"" + own.http + "\"", "port=\"" + other + "\""));
      assertThat(program.ends(4, "deploy", "--to", "shop").out())
          .contains("the server does not listen on it: conf/server.xml has " + other)
          .contains("Write http = " + other + " into servers.toml");
      assertThat(program.ends(7, "server", "test", "shop").out())
          .containsPattern("WRONG +port " + own.http)
          .contains("Write http = " + other + " into servers.toml");
      own.server(text -> text.replace("port=\"" + other + "\"", "port=\"" + own.http + "\""));
      own.server(text -> text.replace("<Engine name=\"Catalina\"", "<Engine name=\"../..\""));
      assertThat(program.ends(4, "deploy", "--to", "shop").out())
          .contains("its host reads descriptors outside the server's folder");
      own.server(text -> text.replace("<Engine name=\"../..\"", "<Engine name=\"Catalina\""));
      int second = Workshop.freePort();
      String both = "<Connector port=\"" + second + "\" address=\"127.0.0.1\"/>";
      own.server(text -> text.replace("<Engine ", both + "<Engine "));
      Path described = program.folder().resolve("servers.toml");
      String alone = Files.readString(described);
      Files.writeString(described, alone + "admin = " + second + "\n");
      assertThat(program.ends(4, "deploy", "--to", "shop", "--on-admin-port").out())
          .contains("stands in the same Service as that of 'http'");
      Files.writeString(described, alone);
      own.server(text -> text.replace(both, ""));
      own.trace().isAs(before);
      Path servers = program.folder().resolve("servers.toml");
      Files.writeString(
          servers,
          Files.readString(servers).replaceAll("log = .*\n", "").replaceAll("start = .*\n", ""));
      own.start();
      assertThat(program.ends(7, "server", "test", "shop").out())
          .contains("started by somebody else, prints to logs/catalina.out")
          .contains("Write log = \"logs/catalina.out\" into servers.toml");
      assertThat(program.ends(4, "deploy", "--to", "shop").out())
          .contains("prints to " + own.folder.resolve("logs/catalina.out"))
          .contains("Write log = \"logs/catalina.out\" into servers.toml");
    }
  }
}
