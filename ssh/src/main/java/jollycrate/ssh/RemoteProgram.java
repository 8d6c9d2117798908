package jollycrate.ssh;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.TimeUnit;
import jollycrate.host.HeldLock;

/** A program on another machine, by the process of {@code ssh} that carries its streams. */
record RemoteProgram(Process process) implements HeldLock.Shell {
  private static final int NOT_YET = -1;

  /** Its exit code; below zero when it goes on. */
  int exitWithin(Duration limit) {
    try {
      return process.waitFor(limit.toMillis(), TimeUnit.MILLISECONDS)
          ? process.exitValue()
          : NOT_YET;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return NOT_YET;
    }
  }

  /** A program that ends without reading all of its input does without it. */
  void tell(byte[] input) {
    try {
      in().write(input);
      in().flush();
    } catch (IOException endedBefore) {
      return;
    }
  }

  /** The same with the end of its input behind it. */
  void tellAll(String input) {
    try (OutputStream in = in()) {
      in.write(input.getBytes(StandardCharsets.UTF_8));
    } catch (IOException endedBefore) {
      return;
    }
  }

  @Override
  public void end() {
    process.destroy();
  }
}
