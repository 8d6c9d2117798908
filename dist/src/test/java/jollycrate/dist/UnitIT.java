package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A server that a unit of systemd runs, whose output is in the journal alone. */
class UnitIT {
  private static final Path SYSTEMD = Path.of("/lib/systemd/systemd");

  @TempDir Path folder;

  /** A machine in name spaces of its own; closing it ends all that runs there. */
  private static final class Machine implements AutoCloseable {
    private final Process process;
    private final Program program;

    Machine(Path folder, Program program) throws IOException {
      Path script = folder.resolve("machine.sh");
      try (InputStream in = UnitIT.class.getResourceAsStream("/machine.sh")) {
        Files.copy(in, script);
      }
      this.program = program;
      this.process =
          new ProcessBuilder("sh", script.toString(), folder.toString())
              .redirectErrorStream(true)
              .redirectOutput(folder.resolve("machine.out").toFile())
              .start();
      Yard.until(
          "its systemd",
          () -> !process.isAlive() || in("systemctl", "is-active", "systemd-journald").exit() == 0);
      assumeTrue(process.isAlive(), "no machine of its own may run here");
    }

    /** Runs a command on it. */
    Program.Run in(String... command) {
      String pid = process.children().findFirst().map(child -> "" + child.pid()).orElse("0");
      List<String> words = new ArrayList<>(List.of(pid));
      words.addAll(List.of(command));
      return program.shell(
          "exec nsenter -t \"$0\" -p -m -u -i sh -c 'cd \"$0\" && exec \"$@\"' \"$PWD\" \"$@\"",
          words.toArray(String[]::new));
    }

    /** Runs the program on it. */
    String jolly(int exit, String... args) {
      List<String> words = new ArrayList<>(List.of(Program.HOME.resolve("bin/jolly").toString()));
      words.addAll(List.of(args));
      Program.Run run = in(words.toArray(String[]::new));
      assertThat(run.exit()).as(String.join(" ", args) + run.all()).isEqualTo(exit);
      return run.all();
    }

    String unit(String property) {
      return in("systemctl", "show", "--value", "-p", property, "own").out().strip();
    }

    @Override
    public void close() throws InterruptedException {
      process.destroyForcibly();
      process.waitFor();
      String groups = "find /sys/fs/cgroup -depth -type d -path \"*/machine-$0*\"";
      Yard.until(
          "the end of all that ran there",
          () ->
              program
                      .shell(
                          groups + " -exec rmdir {} + 2>/dev/null; test -z \"$(" + groups + ")\"",
                          "" + process.pid())
                      .exit()
                  == 0);
    }
  }

  @Test
  void itsManagerStartsAndStopsItAndItsJournalIsRead() throws Exception {
    assumeTrue(Files.isExecutable(SYSTEMD) && System.getProperty("user.name").equals("root"));
    Path scratch = Files.createDirectory(folder.resolve("machine"));
    Path units = Files.createDirectory(scratch.resolve("units"));
    Program desk = new Program(Files.createDirectory(folder.resolve("desk")));
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder);
        Machine machine = new Machine(scratch, desk)) {
      Files.writeString(
          units.resolve("own.service"),
          """
          [Unit]
          DefaultDependencies=no
          [Service]
          WorkingDirectory=%s
          ExecStart=%s/bin/catalina.sh run
          SuccessExitStatus=143
          Restart=always
          """
              .formatted(own.folder, own.folder));
      machine.in("systemctl", "daemon-reload");
      machine.in("systemctl", "start", "own");
      Yard.until(
          "the server",
          () -> machine.in("journalctl", "-u", "own").out().contains("Server startup"));
      assertThat(
              machine.jolly(
                  3, "server", "adopt", own.folder.toString(), "--name", "x", "--unit", "none"))
          .contains("the service manager knows no unit 'none' (not-found)");
      assertThat(machine.jolly(0, "server", "adopt", own.folder.toString(), "--name", "shop"))
          .containsPattern("runs by +unit own");
      Trace before = own.trace();
      String process = machine.unit("MainPID");
      Path right = war("bell", "");
      Path logging = own.folder.resolve("conf/logging.properties");
      String stamped = Files.readString(logging);
      Files.writeString(
          logging, stamped.replaceAll("(ConsoleHandler.formatter = ).*", "$1bare.Formatter"));
      assertThat(machine.jolly(4, "deploy", right.toString(), "--undescribed", "--to", "shop"))
          .contains(
              "has no stamp and no level (bare.Formatter)", "Write java.util.logging.Console");
      Files.writeString(logging, stamped);
      Path broken = war("mute", "throw new IllegalStateException(\"mute\");");
      assertThat(machine.jolly(0, "deploy", right.toString(), "--undescribed", "--to", "shop"))
          .contains("unit own runs it", "it goes on as it runs", "Delivered bell");
      assertThat(machine.jolly(5, "deploy", broken.toString(), "--undescribed", "--to", "shop"))
          .contains("listener shop.Start threw IllegalStateException: mute", "journal of own");
      assertThat(machine.unit("MainPID")).isEqualTo(process);

      int http = Workshop.freePort();
      assertThat(machine.jolly(0, "server", "change", "shop", "http=" + http))
          .contains("it is restarted by its service manager", "shop listens on " + http);
      assertThat(machine.unit("MainPID")).isNotEqualTo(process);
      assertThat(machine.unit("NRestarts")).isEqualTo("0");
      assertThat(machine.jolly(0, "server", "log", "shop")).contains("Server startup in");
      machine.jolly(0, "server", "stop", "shop");
      assertThat(machine.unit("ActiveState")).isEqualTo("inactive");
      machine.jolly(0, "server", "start", "shop");
      assertThat(machine.unit("ActiveState")).isEqualTo("active");
      machine.jolly(0, "undeploy", "bell", "--from", "shop");
      machine.jolly(0, "server", "change", "shop", "http=" + own.http);
      own.trace().isAs(before);
    }
  }

  private Path war(String name, String source) throws IOException {
    return Wars.with(folder, Wars.listener("Start"))
        .source("Start", Wars.listenerSource("Start", source))
        .source(
            "Bell",
            "@jakarta.servlet.annotation.WebServlet(\"/\")\n"
                + Wars.servletSource("Bell", "response.getWriter().print(\"ding\");"))
        .write(name + ".war");
  }
}
