package jollycrate.file;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Map;
import java.util.Optional;

/**
 * What a folder's listing tells of a file, links not followed.
 *
 * @param stamp empty where the system does not tell
 */
public record FileFacts(Type type, long size, Optional<Stamp> stamp) {
  private static final int TYPE = 0170000;
  private static final int FILE = 0100000;
  private static final int FOLDER = 0040000;
  private static final int LINK = 0120000;

  /** What it is. */
  public enum Type {
    FILE,
    FOLDER,
    LINK,
    OTHER
  }

  /** Asks for the facts once. */
  public static FileFacts of(Path file) throws IOException {
    if (!Stamp.isTold(file)) {
      BasicFileAttributes facts =
          Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
      return new FileFacts(type(facts), facts.size(), Optional.empty());
    }
    Map<String, Object> facts =
        Files.readAttributes(file, "unix:mode,dev,ino,size,ctime", LinkOption.NOFOLLOW_LINKS);
    Stamp stamp = Stamp.of(facts);
    return new FileFacts(type((int) facts.get("mode")), stamp.size(), Optional.of(stamp));
  }

  private static Type type(int mode) {
    return switch (mode & TYPE) {
      case FILE -> Type.FILE;
      case FOLDER -> Type.FOLDER;
      case LINK -> Type.LINK;
      default -> Type.OTHER;
    };
  }

  private static Type type(BasicFileAttributes facts) {
    return facts.isRegularFile()
        ? Type.FILE
        : facts.isDirectory() ? Type.FOLDER : facts.isSymbolicLink() ? Type.LINK : Type.OTHER;
  }
}
