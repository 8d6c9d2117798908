package jollycrate.host;

import java.nio.file.Path;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

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

  /** Bytes that have to be sent to put a file; none where it is put without a way. */
  default long onTheWay(Path file, Content content) {
    return 0;
  }

  /** Copies a file with its rights and owner, as {@link #put} puts it. */
  void copy(Path from, Path to);

  /**
   * Writes over a part of a file that stands there, and syncs it; what lies inside the file needs
   * no further space on the disk.
   */
  void write(Path file, long offset, byte[] bytes);

  /** Appends to a file that stands there, and syncs it. */
  void append(Path file, byte[] bytes);

  /** Makes one folder inside one that stands there. */
  void makeFolder(Path folder, Access access);

  /** Renames over what stands there; a file of another file system is copied and deleted. */
  void move(Path from, Path to);

  /** Gives a file a fresh time, so that whoever compares times looks at it again. */
  void touch(Path file);

  /** Deletes a file, a link or an empty folder; nothing when nothing stands there. */
  void delete(Path path);

  /** Where a path really is: links in it followed; the path itself where nothing stands. */
  Path real(Path path);

  /** Bytes free for new files below a folder. */
  long free(Path folder);

  /** Whether this user may write in a folder. */
  boolean writable(Path folder);

  /**
   * The whole content of a file; empty without a file.
   *
   * @throws HostException also when it is longer than {@code most}: a part is not the file
   */
  default byte[] whole(Path file, int most) {
    byte[] bytes = read(file, 0, most + 1);
    if (bytes.length > most) {
      throw new HostException(
          "Cannot read '" + file + "': it is longer than " + (most >> 20) + " MiB");
    }
    return bytes;
  }

  /** The {@link #whole} content of a file; empty when nothing stands there. */
  default Optional<byte[]> wholeIfThere(Path file, int most) {
    return facts(file).exists() ? Optional.of(whole(file, most)) : Optional.empty();
  }

  /** The {@link #whole} content of files, in one round trip. */
  default Map<Path, byte[]> wholes(Collection<Path> files, int most) {
    return each(files, file -> whole(file, most));
  }

  /** The {@link #digest} of those files that are there, in one round trip. */
  default Map<Path, String> digests(Collection<Path> files) {
    Map<Path, String> digests = new HashMap<>();
    for (Path file : files) {
      try {
        digests.put(file, digest(file));
      } catch (AbsentException gone) {
        digests.remove(file);
      }
    }
    return digests;
  }

  /** What {@link #list} says of folders, in one round trip. */
  default Map<Path, List<Path>> lists(Collection<Path> folders) {
    return each(folders, this::list);
  }

  private static <T> Map<Path, T> each(Collection<Path> paths, Function<Path, T> verb) {
    Map<Path, T> found = new HashMap<>();
    paths.forEach(path -> found.put(path, verb.apply(path)));
    return found;
  }

  /** Facts of one path. */
  default Facts facts(Path path) {
    return facts(List.of(path)).get(0);
  }

  /** Where {@link #put} writes before it renames; what is left there after a crash is no use. */
  static Path beside(Path file) {
    return file.resolveSibling("." + file.getFileName() + ".part");
  }

  /** Deletes a path with everything below it; links are deleted, never followed. */
  default void deleteTree(Path path) {
    if (facts(path).isFolder()) {
      list(path).forEach(this::deleteTree);
    }
    delete(path);
  }
}
