package jollycrate.file;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders with all that is in them. */
public final class Trees {
  private Trees() {}

  /** A new folder of this user's own among the temporary ones. */
  public static Path temporary() {
    try {
      return Files.createTempDirectory("jolly");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The same as {@link #delete}, where nothing can be done about a failure. */
  public static void discard(Path tree) {
    try {
      delete(tree);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Deletes a folder or file, links as links; nothing when it is not there. */
  public static void delete(Path tree) throws IOException {
    if (!Files.exists(tree, LinkOption.NOFOLLOW_LINKS)) {
      return;
    }
    try (Stream<Path> files = Files.walk(tree)) {
      for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(file);
      }
    }
  }
}
