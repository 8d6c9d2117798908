package jollycrate;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.artifact.Trees;

/** Folders that are needed for a while. */
final class Folders {
  private Folders() {}

  static Path temporary() {
    try {
      return Files.createTempDirectory("jolly");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static void delete(Path tree) {
    try {
      Trees.delete(tree);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
