package jollycrate.cli.output;

import java.nio.file.Path;
import java.util.Locale;
import jollycrate.file.Digests;

/** Times, numbers and places as people read them. */
final class Amounts {
  private static final int STEP = 1000;

  private Amounts() {}

  /** Milliseconds below a second, seconds above. */
  static String time(long millis) {
    return millis < STEP
        ? millis + " ms"
        : String.format(Locale.ROOT, "%.1f s", millis / (double) STEP);
  }

  /** The beginning of a revision, with the sign that files differ from it. */
  static String revision(String revision) {
    String sign = revision.endsWith("+") ? "+" : "";
    return Digests.brief(revision.replace("+", "")) + sign;
  }

  static String count(int number, String one, String many) {
    return number + " " + (number == 1 ? one : many);
  }

  /** A file as it is named from a folder. */
  static String shown(Path folder, Path file) {
    return file.startsWith(folder) ? folder.relativize(file).toString() : file.toString();
  }
}
