package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The unit that starts a server with the machine, started by a systemd of the test's own. */
class BootIT {
  private static final Path SYSTEMD = Path.of("/lib/systemd/systemd");
  private static final Pattern RUNS_AS = Pattern.compile("runs, pid (\\d+)");

  @TempDir Path folder;

  @Test
  void systemdStartsItKeepsItAndItIsKnown() throws Exception {
    assumeTrue(Files.isExecutable(SYSTEMD) && System.getProperty("user.name").equals("root"));
    Path home = Files.createDirectory(folder.resolve("home dir"));
    Path odd = Files.createDirectory(folder.resolve("räder 100% $HOME"));
    try (Yard yard =
        Yard.with(
            odd,
            "serve(Integer.parseInt(args[0]), \"bell\");",
            "[program]",
            "port = { argument = \"{value}\" }")) {
      yard.program.inheriting("HOME", home.toString());
      Path servers = odd.resolve("servers.toml");
      Files.writeString(servers, Files.readString(servers) + "boot = \"user\"\n");
      assertThat(yard.ok("deploy", "--to", "yard"))
          .contains("systemd-analyze accepts it, exposure level");
      yard.ok("server", "stop", "yard");
      long next;
      Process systemd = systemd(home);
      try {
        Yard.until("the program", () -> yard.answers());
        long keeper = keeper(yard);
        assertThat(ProcessHandle.of(keeper).flatMap(ProcessHandle::parent))
            .contains(systemd.toHandle());
        long pid = yard.program();
        assertThat(yard.ok("deploy", "--to", "yard")).contains("Unchanged");
        assertThat(yard.program()).isEqualTo(pid);
        Yard.kill(keeper);
        Yard.until("another program", () -> yard.answers() && programOf(yard) != pid);
        next = keeper(yard);
        assertThat(next).isNotEqualTo(keeper);
        yard.ok("undeploy", "yard", "--from", "yard");
        try (Stream<Path> left = Files.walk(home)) {
          assertThat(left).containsExactly(home);
        }
      } finally {
        systemd.destroy();
        systemd.waitFor();
      }
      assertThat(Yard.runs(next)).isFalse();
    }
  }

  private Process systemd(Path home) throws IOException {
    Path script = folder.resolve("systemd.sh");
    try (InputStream in = BootIT.class.getResourceAsStream("/systemd.sh")) {
      Files.copy(in, script);
    }
    Path scratch = Files.createDirectory(folder.resolve("systemd"));
    Path said = folder.resolve("systemd.out");
    Process systemd =
        new ProcessBuilder("sh", script.toString(), scratch.toString(), home.toString())
            .redirectErrorStream(true)
            .redirectOutput(said.toFile())
            .start();
    Path ready = scratch.resolve("runtime/systemd/private");
    Yard.until("systemd", () -> Files.exists(ready) || !systemd.isAlive());
    assumeTrue(systemd.isAlive(), () -> "no systemd may run here: " + said);
    return systemd;
  }

  private static long keeper(Yard yard) {
    Matcher told = RUNS_AS.matcher(yard.ok("server", "list"));
    assertThat(told.find()).isTrue();
    return Long.parseLong(told.group(1));
  }

  private static long programOf(Yard yard) {
    try {
      return yard.program();
    } catch (IOException e) {
      return 0;
    }
  }
}
