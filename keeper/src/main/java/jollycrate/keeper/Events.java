package jollycrate.keeper;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** What happened to programs, one line each: time, event, name and particulars. */
final class Events {
  private static final long MOST_BYTES = 4 << 20;

  private final Path file;

  private Events(Path file) {
    this.file = file;
  }

  /**
   * What an earlier keeper told is set aside when it is long: the next begins with all it knows.
   */
  static Events begin(Path file) throws IOException {
    if (Files.exists(file) && Files.size(file) > MOST_BYTES) {
      Files.move(
          file,
          file.resolveSibling(file.getFileName() + ".old"),
          StandardCopyOption.REPLACE_EXISTING);
    }
    return new Events(file);
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
