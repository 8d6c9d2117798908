package jollycrate.watch;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.file.PlainText;
import jollycrate.host.HostFiles;

/**
 * Reads logs as one stream, from given places on and as they grow. {@code NAME.log} is the end of a
 * log whose earlier parts are {@code NAME.0001.log} and so on.
 */
public final class LogTail {
  private static final int MOST_BYTES = 1 << 20;
  private static final Pattern PART = Pattern.compile("(.*)\\.(\\d{4,9})\\.log");

  private final HostFiles files;
  private final Consumer<LogEntry> found;
  private final Map<Path, Long> offsets = new HashMap<>();
  private final Map<Path, String> begun = new HashMap<>();
  private final Map<Path, LogEntries> entries = new HashMap<>();

  /** Tells of every entry. */
  public LogTail(HostFiles files, Consumer<LogEntry> found) {
    this.files = files;
    this.found = found;
  }

  /** The part of a log that is still written to; itself when there are no others. */
  public static Path end(Path file) {
    Matcher part = PART.matcher(file.getFileName().toString());
    return part.matches() ? file.resolveSibling(part.group(1) + ".log") : file;
  }

  /** The parts that were begun after a full part, the end of the log last. */
  public static List<Path> behind(HostFiles files, Path part) {
    Path end = end(part);
    return part.equals(end)
        ? List.of()
        : Stream.concat(
                files.list(part.getParent()).stream()
                    .filter(file -> end(file).equals(end) && !file.equals(end))
                    .filter(file -> number(file) > number(part)),
                Stream.of(end))
            .toList();
  }

  /** Number of a full part. */
  public static int number(Path part) {
    Matcher matcher = PART.matcher(part.getFileName().toString());
    return matcher.matches() ? Integer.parseInt(matcher.group(2)) : Integer.MAX_VALUE;
  }

  /** Short name of a log, without the day it is of. */
  static String source(Path file) {
    String name = end(file).getFileName().toString();
    return name.replaceFirst("(?:\\.\\d{4}-\\d\\d-\\d\\d)?\\.(?:log|out|txt)$", "");
  }

  /** Begins to read a log there; nothing that stands before it. */
  public void from(Path file, long offset) {
    offsets.put(file, offset);
  }

  /**
   * Reads on, to the end of all that stands there now.
   *
   * @param logs all parts of all logs, the oldest part of each first
   */
  public void read(List<Path> logs) {
    boolean many = logs.stream().map(LogTail::end).distinct().count() > 1;
    for (Path file : logs) {
      if (file.equals(end(file)) && files.facts(file).size() < offsets.getOrDefault(file, 0L)) {
        rotated(file, logs);
      }
      if (offsets.containsKey(file)) {
        readOn(file, many);
      } else if (file.equals(end(file))) {
        offsets.put(file, 0L);
        readOn(file, many);
      }
    }
  }

  /** The place where we were stands in the newest full part now. */
  private void rotated(Path file, List<Path> logs) {
    List<Path> parts = new ArrayList<>(logs);
    parts.removeIf(part -> part.equals(file) || !end(part).equals(file));
    long offset = offsets.put(file, 0L);
    if (!parts.isEmpty()) {
      Path newest = parts.get(parts.size() - 1);
      offsets.put(newest, offset);
      begun.put(newest, begun.getOrDefault(file, ""));
      begun.remove(file);
      readOn(newest, false);
      offsets.remove(newest);
    }
  }

  private void readOn(Path file, boolean many) {
    String source = many ? source(file) : "";
    LogEntries into = entries.computeIfAbsent(end(file), log -> new LogEntries(source, found));
    byte[] bytes = files.read(file, offsets.get(file), MOST_BYTES);
    while (bytes.length > 0) {
      offsets.merge(file, (long) bytes.length, Long::sum);
      String text = begun.getOrDefault(file, "") + new String(bytes, StandardCharsets.ISO_8859_1);
      int last = text.lastIndexOf('\n');
      decoded(text.substring(0, last + 1)).lines().forEach(into::line);
      begun.put(file, text.substring(last + 1));
      bytes = files.read(file, offsets.get(file), MOST_BYTES);
    }
  }

  private static String decoded(String bytes) {
    return PlainText.of(
        new String(bytes.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8));
  }

  /** Tells of entries that were begun, whether or not more belongs to them. */
  public void flush() {
    begun.forEach(
        (file, text) -> {
          if (!text.isEmpty()) {
            entries.get(end(file)).line(decoded(text));
          }
        });
    begun.clear();
    entries.values().forEach(LogEntries::flush);
  }
}
