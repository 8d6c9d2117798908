package jollycrate.keeper;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A log is bounded, loses no line while it is kept, and a place in it stays where it was. */
class RotatingLogTest {
  @TempDir Path folder;

  @Test
  void fullFilesArePutAsideAtALineEndAndTheOldestGo() throws IOException {
    try (RotatingLog log = log("log.size=20\nlog.keep=2\n")) {
      for (int line = 1; line <= 9; line++) {
        write(log, "line number " + line + "\n");
      }
    }
    assertThat(names()).containsExactly("bell.0003.log", "bell.0004.log", "bell.log");
    assertThat(text("bell.0003.log")).isEqualTo("line number 5\nline number 6\n");
    assertThat(text("bell.0004.log")).isEqualTo("line number 7\nline number 8\n");
    assertThat(text("bell.log")).isEqualTo("line number 9\n");
  }

  @Test
  void aPlaceIsTheFileThatItsNextByteWillStandIn() throws IOException {
    try (RotatingLog log = log("log.size=20\nlog.keep=9\n")) {
      assertThat(log.place()).isEqualTo("bell:1:0");
      write(log, "0123456789\n");
      assertThat(log.place()).isEqualTo("bell:1:11");
      write(log, "0123456789\n");
      assertThat(log.place()).isEqualTo("bell:2:0");
    }
    try (RotatingLog again = log("log.size=20\nlog.keep=9\n")) {
      assertThat(again.place()).isEqualTo("bell:2:0");
    }
    assertThat(text("bell.0001.log")).isEqualTo("0123456789\n0123456789\n");
  }

  @Test
  void aLineLongerThanAFileIsNotCut() throws IOException {
    String wide = "x".repeat(50);
    try (RotatingLog log = log("log.size=20\nlog.keep=2\n")) {
      write(log, wide);
      write(log, wide + "\n");
      write(log, "next\n");
    }
    assertThat(text("bell.0001.log")).isEqualTo(wide + wide + "\n");
    assertThat(text("bell.log")).isEqualTo("next\n");
  }

  @Test
  void aRunFileThatIsNotOneIsRefused() {
    assertThatThrownBy(() -> log("log.size=much\n")).isInstanceOf(IOException.class);
    assertThatThrownBy(() -> log("folder=\\u12\n")).isInstanceOf(IOException.class);
  }

  private RotatingLog log(String lines) throws IOException {
    Path run = Files.writeString(folder.resolve("bell.program"), lines);
    return new RotatingLog(folder, RunFile.read(run));
  }

  private static void write(RotatingLog log, String text) throws IOException {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    log.write(bytes, bytes.length);
  }

  private String text(String name) throws IOException {
    return Files.readString(folder.resolve(name));
  }

  private List<String> names() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .map(file -> file.getFileName().toString())
          .filter(name -> name.endsWith(".log"))
          .sorted()
          .toList();
    }
  }
}
