package jollycrate.host;

import java.nio.file.Path;
import java.time.Instant;

/**
 * What is known of one path without reading it.
 *
 * @param size in bytes; 0 for anything but a file
 * @param access empty strings when nothing is there
 * @param target where a symbolic link points, else empty
 */
public record Facts(
    Path path, Type type, long size, Access access, Instant modified, String target) {

  /** What stands at a path. */
  public enum Type {
    ABSENT,
    FILE,
    FOLDER,
    LINK,
    OTHER
  }

  /** Facts of a path where nothing stands. */
  public static Facts absent(Path path) {
    return new Facts(path, Type.ABSENT, 0, new Access("", "", ""), Instant.EPOCH, "");
  }

  /** Whether anything stands there. */
  public boolean exists() {
    return type != Type.ABSENT;
  }

  /** Whether a file stands there. */
  public boolean isFile() {
    return type == Type.FILE;
  }

  /** Whether a folder stands there. */
  public boolean isFolder() {
    return type == Type.FOLDER;
  }
}
