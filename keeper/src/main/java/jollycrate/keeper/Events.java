package jollycrate.keeper;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** What happened to programs, one line each: time, event, name and particulars. */
final class Events {
  private final Path file;

  Events(Path file) {
    this.file = file;
  }

  synchronized void tell(String event, String name, String particulars) {
    String line =
        Instant.now().truncatedTo(ChronoUnit.MILLIS)
            + " "
            + event
            + " "
            + name
            + (particulars.isEmpty() ? "" : " " + particulars.replaceAll("[\\r\\n]+", " "))
            + "\n";
    try {
      Files.write(
          file,
          line.getBytes(StandardCharsets.UTF_8),
          StandardOpenOption.CREATE,
          StandardOpenOption.APPEND);
    } catch (IOException e) {
      System.err.println("Cannot write '" + file + "': " + e + "; not told there: " + line);
    }
  }
}
