package jollycrate.dist;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A program that was started by itself; closing it ends it. */
final class Started implements AutoCloseable {
  private static final long LIMIT_NANOS = TimeUnit.SECONDS.toNanos(240);
  private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(20);

  private final Process process;
  private final Path output;

  private Started(Process process, Path output) {
    this.process = process;
    this.output = output;
  }

  /** Starts it and waits until it says so. */
  static Started saying(
      String line, Path folder, Map<String, String> environment, List<String> command)
      throws IOException {
    Path output = Files.createTempFile("started", ".out");
    ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile());
    builder.environment().putAll(environment);
    Process process = builder.redirectErrorStream(true).redirectOutput(output.toFile()).start();
    Started started = new Started(process, output);
    long end = System.nanoTime() + LIMIT_NANOS;
    while (!started.output().contains(line)) {
      if (!process.isAlive() || System.nanoTime() > end) {
        started.close();
        throw new AssertionError(command + " does not say '" + line + "':\n" + started.output());
      }
      LockSupport.parkNanos(LOOK_NANOS);
    }
    return started;
  }

  static String java() {
    return Path.of(System.getProperty("java.home"), "bin", "java").toString();
  }

  String output() throws IOException {
    return Files.readString(output);
  }

  /** Asks it to stop and waits for it. */
  int stop() {
    process.destroy();
    return process.onExit().join().exitValue();
  }

  @Override
  public void close() {
    process.destroyForcibly();
    process.onExit().join();
  }
}
