package jollycrate.file;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a killed command leaves among temporary files goes with the next. */
class TreesTest {
  /** Makes a temporary folder and then waits to be killed. */
  public static final class Command {
    private Command() {}

    /** Prints the folder. */
    public static void main(String[] arguments) throws IOException {
      Path folder = Trees.temporary();
      Files.createFile(folder.resolve("large.war"));
      System.out.println(folder);
      System.in.read();
    }
  }

  private static Process start(Path temporary) throws IOException {
    return new ProcessBuilder(
            List.of(
                Path.of(System.getProperty("java.home"), "bin/java").toString(),
                "-Djava.io.tmpdir=" + temporary,
                "-cp",
                System.getProperty("java.class.path"),
                Command.class.getName()))
        .redirectError(ProcessBuilder.Redirect.INHERIT)
        .start();
  }

  private static Path told(Process process) throws IOException {
    return Path.of(process.inputReader().readLine());
  }

  @Test
  void onlyWhatNoLivingProcessOwnsGoes(@TempDir Path temporary) throws Exception {
    Process killed = start(temporary);
    Path left = told(killed);
    killed.destroyForcibly().waitFor();
    Process lives = start(temporary);
    Path used = told(lives);
    Process next = start(temporary);
    Path own = told(next);
    assertThat(left).doesNotExist();
    assertThat(List.of(used.resolve("large.war"), own)).allMatch(Files::exists);
    for (Process process : List.of(lives, next)) {
      process.destroy();
      assertThat(process.waitFor(20, TimeUnit.SECONDS)).isTrue();
    }
  }
}
