package jollycrate.host;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
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
    inBackground(
        () -> {
          try (OutputStream in = process.getOutputStream()) {
            in.write(input.getBytes(StandardCharsets.UTF_8));
          } catch (IOException endedBefore) {
            return;
          }
        });
  }

  private static void inBackground(Runnable work) {
    Thread thread = new Thread(work);
    thread.setDaemon(true);
    thread.start();
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

  /** What a program prints; whatever it leaves running may hold the pipe open after its end. */
  private record Words(ByteArrayOutputStream read, CountDownLatch end) {
    private static final long AFTER_THE_END_MILLIS = 1000;

    static Words of(InputStream in) {
      Words words = new Words(new ByteArrayOutputStream(), new CountDownLatch(1));
      inBackground(
          () -> {
            try (in) {
              in.transferTo(words.read());
            } catch (IOException e) {
              words.cut(e);
            } finally {
              words.end().countDown();
            }
          });
      return words;
    }

    private void cut(IOException e) {
      read.writeBytes(("\n(" + e.getMessage() + ")\n").getBytes(StandardCharsets.UTF_8));
    }

    String text() {
      try {
        end.await(AFTER_THE_END_MILLIS, TimeUnit.MILLISECONDS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      return read.toString(StandardCharsets.UTF_8);
    }
  }
}
