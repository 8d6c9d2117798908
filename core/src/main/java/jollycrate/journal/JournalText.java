package jollycrate.journal;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.json.Json;
import jollycrate.stock.RecordsException;

/**
 * A journal as it stands in its file.
 *
 * @param further lines after the first
 * @param end offset behind the last byte of the last line
 * @param size of the file
 * @param torn whether the last line is torn
 */
record JournalText(
    JournalLine.Opened opened, List<JournalLine> further, long end, long size, boolean torn) {

  /**
   * Reads it.
   *
   * @throws RecordsException when anything but its last line, or a line that is told to be torn,
   *     cannot be read
   */
  static JournalText of(Path file, byte[] bytes) {
    int end = bytes.length;
    while (end > 0 && bytes[end - 1] == '\n') {
      end--;
    }
    List<JournalLine> lines = new ArrayList<>();
    int broken = 0;
    int number = 0;
    for (String line : new String(bytes, 0, end, StandardCharsets.UTF_8).split("\n")) {
      number++;
      Optional<JournalLine> read = Json.read(line, JournalLine.class);
      if (read.isPresent() && broken > 0 && !(read.get() instanceof JournalLine.Torn)) {
        throw unreadable(file, broken, line.length());
      }
      if (read.isPresent()) {
        broken = 0;
        lines.add(read.get());
      } else if (!line.isEmpty() && broken == 0) {
        broken = number;
      }
    }
    if (lines.isEmpty() || !(lines.get(0) instanceof JournalLine.Opened opened)) {
      throw unreadable(file, 1, bytes.length);
    }
    if (opened.format() != JournalLine.FORMAT) {
      throw new RecordsException(
          "Cannot go on: '"
              + file
              + "' has format "
              + opened.format()
              + ", and this jolly knows format "
              + JournalLine.FORMAT
              + ". Nothing was touched; use the jolly that wrote it");
    }
    boolean whole = end < bytes.length && broken == 0;
    return new JournalText(
        opened,
        List.copyOf(lines.subList(1, lines.size())),
        whole ? end + 1 : end,
        bytes.length,
        !whole);
  }

  private static RecordsException unreadable(Path file, int line, int length) {
    return new RecordsException(
        "Cannot go on: '"
            + file
            + "' cannot be read from line "
            + line
            + " on ("
            + (length == 0 ? "it is empty" : "that is no line of a journal")
            + "), so whether a delivery is unended is not known. Nothing was touched. Compare the"
            + " server's files with the copies in 'backup' beside it, put right what is wrong, and"
            + " run 'jolly recover --on NAME --set-aside'");
  }
}
