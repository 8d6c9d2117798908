package jollycrate.keeper;

import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * {@code NAME.log}, which becomes {@code NAME.0001.log} and so on when it is full. A number is
 * never used twice, so a place in a log stays where it was.
 */
final class RotatingLog implements Closeable {
  private final Path folder;
  private final String name;
  private final long size;
  private final int keep;
  private OutputStream out;
  private long written;
  private int number;

  RotatingLog(Path folder, RunFile run) throws IOException {
    this.folder = folder;
    this.name = run.log();
    this.size = run.logSize;
    this.keep = run.logKeep;
    open();
  }

  private Path current() {
    return folder.resolve(name + ".log");
  }

  private void open() throws IOException {
    List<Integer> numbers = numbers();
    number = numbers.isEmpty() ? 1 : numbers.get(numbers.size() - 1) + 1;
    out = Files.newOutputStream(current(), StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    written = Files.size(current());
  }

  private List<Integer> numbers() throws IOException {
    Pattern form = Pattern.compile(Pattern.quote(name) + "\\.(\\d{4,9})\\.log");
    List<Integer> numbers = new ArrayList<>();
    try (DirectoryStream<Path> files = Files.newDirectoryStream(folder)) {
      for (Path file : files) {
        Matcher matcher = form.matcher(file.getFileName().toString());
        if (matcher.matches()) {
          numbers.add(Integer.valueOf(matcher.group(1)));
        }
      }
    }
    Collections.sort(numbers);
    return numbers;
  }

  /** Where the next byte comes to stand: the number that the file will have, and the offset. */
  String place() {
    return name + ":" + number + ":" + written;
  }

  /**
   * Writes; rotates behind the last line end once the file is full. A log that could not be opened,
   * as on a full disk, is tried again.
   */
  void write(byte[] bytes, int length) throws IOException {
    if (out == null) {
      open();
    }
    int end = length;
    if (written + length >= size) {
      while (end > 0 && bytes[end - 1] != '\n') {
        end--;
      }
    }
    if (written + length < size || end == 0) {
      put(bytes, 0, length);
      return;
    }
    put(bytes, 0, end);
    rotate();
    put(bytes, end, length - end);
  }

  private void put(byte[] bytes, int from, int length) throws IOException {
    if (length > 0) {
      out.write(bytes, from, length);
      written += length;
    }
  }

  private void rotate() throws IOException {
    close();
    Files.move(current(), numbered(number));
    List<Integer> numbers = numbers();
    for (int i = 0; i < numbers.size() - keep; i++) {
      Files.deleteIfExists(numbered(numbers.get(i)));
    }
    open();
  }

  private Path numbered(int of) {
    return folder.resolve(String.format("%s.%04d.log", name, of));
  }

  @Override
  public void close() throws IOException {
    if (out != null) {
      OutputStream open = out;
      out = null;
      open.close();
    }
  }
}
