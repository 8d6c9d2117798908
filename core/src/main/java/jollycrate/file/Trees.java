package jollycrate.file;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders with all that is in them. */
public final class Trees {
  private Trees() {}

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
