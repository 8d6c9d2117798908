package jollycrate.cli.output;

import java.nio.file.Path;
import java.util.Locale;

/** Sizes, times and places as people read them. */
final class Amounts {
  private static final int STEP = 1000;
  private static final int FEW = 10;

  private Amounts() {}

  /** Bytes in decimal units. */
  static String size(long bytes) {
    if (bytes < STEP) {
      return bytes + " B";
    }
    double value = bytes;
    for (String unit : new String[] {"kB", "MB", "GB", "TB"}) {
      value /= STEP;
      if (value < STEP) {
        return String.format(Locale.ROOT, value < FEW ? "%.1f %s" : "%.0f %s", value, unit);
      }
    }
    return bytes + " B";
  }

  static String seconds(long millis) {
    return String.format(Locale.ROOT, "%.1f s", millis / 1000.0);
  }

  static String count(int number, String one, String many) {
    return number + " " + (number == 1 ? one : many);
  }

  /** A file as it is named from a folder. */
  static String shown(Path folder, Path file) {
    return file.startsWith(folder) ? folder.relativize(file).toString() : file.toString();
  }
}
