package jollycrate.file;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Folders that are needed for a while. */
public final class Folders {
  private Folders() {}

  public static Path temporary() {
    try {
      return Files.createTempDirectory("jolly");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public static void delete(Path tree) {
    try {
      Trees.delete(tree);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
