package jollycrate.host;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** Runs a program of this machine to its end, or to its limit. */
final class LocalRun {
  private LocalRun() {}

  static Ran toItsEnd(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit) {
    ProcessBuilder builder = new ProcessBuilder(command).directory(workingFolder.toFile());
    builder.environment().clear();
    builder.environment().putAll(environment);
    try {
      Process process = builder.start();
      Words output = Words.of(process.getInputStream());
      Words errors = Words.of(process.getErrorStream());
      tell(process, input);
      int exit = waitFor(process, limit);
      return new Ran(exit, output.text(), errors.text());
    } catch (IOException e) {
      throw HostException.cannot("run", Path.of(command.get(0)), e);
    }
  }

  /** A program that ends without reading all of its input does without it. */
  private static void tell(Process process, String input) {
    Words.inBackground(
        () -> {
          try (OutputStream in = process.getOutputStream()) {
            in.write(input.getBytes(StandardCharsets.UTF_8));
          } catch (IOException endedBefore) {
            return;
          }
        });
  }

  private static int waitFor(Process process, Duration limit) {
    try {
      if (process.waitFor(limit.toMillis(), TimeUnit.MILLISECONDS)) {
        return process.exitValue();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    process.descendants().forEach(ProcessHandle::destroyForcibly);
    process.destroyForcibly();
    return -1;
  }
}
