package jollycrate.app;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Files that a pattern with {@code *} stands for. */
final class FilePattern {
  /** In the order of their names, numbers in them by their value. */
  private static final Comparator<Path> ORDER = Comparator.comparing(FilePattern::comparable);

  private static final Pattern DIGITS = Pattern.compile("\\d+");
  private static final int MOST_DIGITS = 30;
  private static final String ANY_DEPTH = "**";

  private FilePattern() {}

  /**
   * The files that match.
   *
   * @param pattern with {@code *} in it, from the folder on
   * @throws NoSuchFileException of the innermost folder that it names for sure
   * @throws IllegalArgumentException when it is no pattern
   */
  static List<Path> files(Path folder, String pattern) throws IOException {
    Path base = folder.resolve(pattern.substring(0, pattern.indexOf('*')) + "x").getParent();
    if (!Files.isDirectory(base)) {
      throw new NoSuchFileException(base.toString());
    }
    Path whole = folder.resolve(pattern).normalize();
    PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + whole);
    int depth =
        pattern.contains(ANY_DEPTH)
            ? Integer.MAX_VALUE
            : whole.getNameCount() - base.normalize().getNameCount();
    try (Stream<Path> files = Files.walk(base, depth)) {
      return files
          .map(Path::normalize)
          .filter(Files::isRegularFile)
          .filter(matcher::matches)
          .sorted(ORDER)
          .toList();
    }
  }

  private static String comparable(Path path) {
    return DIGITS
        .matcher(path.toString())
        .replaceAll(
            found -> "0".repeat(Math.max(0, MOST_DIGITS - found.group().length())) + found.group());
  }
}
