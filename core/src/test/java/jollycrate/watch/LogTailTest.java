package jollycrate.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.host.Host;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A log is one stream, however it is cut into files, and its entries are whole. */
class LogTailTest {
  @TempDir Path folder;
  private final List<LogEntry> found = new ArrayList<>();

  private List<Path> logs() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.sorted().toList();
    }
  }

  private void print(String text) throws IOException {
    Files.writeString(
        folder.resolve("bell.log"), text, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
  }

  @Test
  void stackTracesStayWithTheirRecord() throws IOException {
    print(
        "08:00 INFO open\n08:01 ERROR [x] broke\njava.io.IOException: räder\n\tat a.B.c(B.java:1)\n"
            + "Caused by: x.Y: z\n\t... 3 more\n08:02 WARN late\nplain\njava.io.IOException: alone\n");
    LogTail tail = new LogTail(Host.local().files(), found::add);
    tail.read(logs());
    tail.flush();
    assertThat(found).extracting(entry -> entry.lines().size()).containsExactly(1, 5, 1, 1, 1);
    assertThat(found)
        .extracting(LogEntry::level)
        .containsExactly(
            LogLevel.INFO, LogLevel.ERROR, LogLevel.WARNING, LogLevel.NONE, LogLevel.ERROR);
    assertThat(found.get(1).lines()).contains("java.io.IOException: räder");
  }

  /** As a database driver's exception does, whose message has several lines. */
  @Test
  void whatHasNoStampBelongsToTheErrorBeforeIt() throws IOException {
    print(
        "2026-11-26 10:00:01 SEVERE threw x.Y: no column; SQL:\nSELECT 1 [42]\nx.Y: no column\n"
            + "\tat a.B\n2026-11-26 10:00:02 INFO on\nprinted\n2026-11-26 10:00:03 INFO off\n");
    LogTail tail = new LogTail(Host.local().files(), found::add);
    tail.read(logs());
    tail.flush();
    assertThat(found).extracting(entry -> entry.lines().size()).containsExactly(4, 1, 1, 1);
  }

  @Test
  void aRotatedLogIsReadOnWithoutLossOrRepetition() throws IOException {
    LogTail tail = new LogTail(Host.local().files(), found::add);
    print("one\ntw");
    tail.read(logs());
    print("o\nthree\n");
    Files.move(folder.resolve("bell.log"), folder.resolve("bell.0001.log"));
    print("4\n");
    tail.read(logs());
    print("five");
    tail.read(logs());
    tail.flush();
    assertThat(found)
        .flatExtracting(LogEntry::lines)
        .containsExactly("one", "two", "three", "4", "five");
  }

  @Test
  void severalLogsAreOneInTheOrderOfTheirStamps() throws IOException {
    print("26-Nov-2026 10:00:01.500 INFO one\n26-Nov-2026 10:00:03.000 SEVERE three\n\tat a.B\n");
    Files.writeString(
        folder.resolve("access.2026-11-26.txt"),
        "127.0.0.1 - - [26/Nov/2026:10:00:02] two\nof two\n");
    Files.writeString(
        folder.resolve("other.log"),
        "2026-11-26T09:59:59,9 early\nNov 26, 2026 10:00:04 AM four\n2026-11-26 10:00:04.1 WARN 5\n");
    LogOrder order = new LogOrder(found::add, entry -> true);
    order.begin("bell");
    LogTail tail = new LogTail(Host.local().files(), order);
    tail.read(logs());
    tail.flush();
    order.flush();
    assertThat(found)
        .extracting(entry -> entry.lines().get(0).replaceFirst(".* ", ""))
        .containsExactly("one", "two", "two", "three", "four", "5");
    assertThat(found)
        .extracting(LogEntry::source)
        .containsExactly("bell", "access", "access", "bell", "other", "other");
  }

  @Test
  void aStampIsReadInItsZone() {
    ZoneId here = ZoneId.systemDefault();
    assertThat(LogStamp.of("2026-11-26T10:00:00+05:00 x"))
        .contains(
            OffsetDateTime.parse("2026-11-26T10:00:00+05:00")
                .atZoneSameInstant(here)
                .toLocalDateTime());
    assertThat(LogStamp.of("2026-99-26 10:00:00 x")).isEmpty();
    assertThat(LogStamp.of("nothing of 26-Nov")).isEmpty();
  }
}
