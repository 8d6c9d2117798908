package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The unit that starts a server with the machine, as far as it can be tried without systemd. */
class BootIT {
  @TempDir Path folder;

  @Test
  void theUnitIsSoundAndWhatItStartsIsKnown() throws Exception {
    assumeTrue(Files.isExecutable(Path.of("/usr/bin/systemd-analyze")));
    Path home = Files.createDirectory(folder.resolve("home dir"));
    try (Yard yard =
        Yard.with(
            folder,
            "serve(Integer.parseInt(args[0]), \"bell\");",
            "[program]",
            "port = { argument = \"{value}\" }")) {
      yard.program.with("HOME", home.toString());
      Path servers = folder.resolve("servers.toml");
      Files.writeString(servers, Files.readString(servers) + "boot = \"user\"\n");
      assertThat(yard.ok("deploy", "--to", "yard"))
          .contains("systemd-analyze accepts it, exposure level");
      Path unit = home.resolve(".config/systemd/user/jolly-yard.service");
      List<String> command = command(unit);
      yard.ok("server", "stop", "yard");
      Process started = new ProcessBuilder(command).directory(yard.server.toFile()).start();
      try {
        Yard.until("the program", () -> answers(yard));
        assertThat(yard.ok("server", "list")).contains("runs as " + started.pid());
        long pid = yard.program();
        assertThat(yard.ok("deploy", "--to", "yard")).contains("Unchanged");
        assertThat(yard.program()).isEqualTo(pid);
        yard.ok("undeploy", "yard", "--from", "yard");
        try (Stream<Path> left = Files.walk(home)) {
          assertThat(left).containsExactly(home);
        }
      } finally {
        started.destroy();
        started.waitFor();
      }
    }
  }

  private static List<String> command(Path unit) throws IOException {
    return Files.readAllLines(unit).stream()
        .filter(line -> line.startsWith("ExecStart="))
        .flatMap(line -> Stream.of(line.substring("ExecStart=".length()).split(" ")))
        .toList();
  }

  private static boolean answers(Yard yard) {
    try {
      return yard.page("/").startsWith("200");
    } catch (IOException e) {
      return false;
    }
  }
}
