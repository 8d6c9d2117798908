package jollycrate.server;

import java.nio.file.Path;

/**
 * Files of a folder whose names are not known beforehand.
 *
 * @param ending of their names
 */
public record Among(Path folder, String ending) {
  /** Whether a file is one of them. */
  public boolean contains(Path file) {
    return folder.equals(file.getParent()) && file.getFileName().toString().endsWith(ending);
  }
}
