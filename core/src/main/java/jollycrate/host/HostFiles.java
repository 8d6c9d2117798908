package jollycrate.host;

import java.nio.file.Path;
import java.util.List;

/**
 * Files of a host. Paths are absolute and never followed through a link at their end. Whatever
 * changes something is durable when it returns.
 *
 * <p>Every verb throws {@link HostException} when the host refuses.
 */
public interface HostFiles {
  /** Facts of all paths in one round trip, in the order asked for. */
  List<Facts> facts(List<Path> paths);

  /** Paths directly inside a folder, sorted; empty when there is no such folder. */
  List<Path> list(Path folder);

  /** SHA-256 of a file's content. */
  String digest(Path file);

  /** At most {@code most} bytes from an offset on; empty behind the end or without a file. */
  byte[] read(Path file, long offset, int most);

  /** Puts a file: written to {@link #beside}, synced and renamed over what stands there. */
  void put(Path file, Content content, Access access);

  /** Puts a file only if nothing stands there, as one act; false when something does. */
  boolean claim(Path file, byte[] content, Access access);

  /** Appends to a file that stands there, and syncs it. */
  void append(Path file, byte[] bytes);

  /** Makes one folder inside one that stands there. */
  void makeFolder(Path folder, Access access);

  /** Renames over what stands there. */
  void move(Path from, Path to);

  /** Deletes a file, a link or an empty folder; nothing when nothing stands there. */
  void delete(Path path);

  /** Bytes free for new files below a folder. */
  long free(Path folder);

  /** Whether this user may write in a folder. */
  boolean writable(Path folder);

  /** Facts of one path. */
  default Facts facts(Path path) {
    return facts(List.of(path)).get(0);
  }

  /** Where {@link #put} writes before it renames; what is left there after a crash is no use. */
  static Path beside(Path file) {
    return file.resolveSibling("." + file.getFileName() + ".part");
  }
}
