package jollycrate.file;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * What tells without reading that a file is the one that was read before: which inode it is, its
 * size, and the time of its last change, which no program can set.
 *
 * @param changed nanoseconds since 1970
 */
public record Stamp(long device, long inode, long size, long changed) {
  /** The coarsest clock of a file system in use is that of FAT. */
  private static final long TICK = TimeUnit.SECONDS.toNanos(2);

  /** Spelled out: a method that Java derives for a record is made at run time, at each start. */
  @Override
  public boolean equals(Object other) {
    return other instanceof Stamp stamp
        && device == stamp.device
        && inode == stamp.inode
        && size == stamp.size
        && changed == stamp.changed;
  }

  @Override
  public int hashCode() {
    return Long.hashCode(inode * 31 + changed);
  }

  /** The stamp of a file as it stands, a link followed; empty where the system does not tell. */
  public static Optional<Stamp> of(Path file) throws IOException {
    return isTold(file)
        ? Optional.of(of(Files.readAttributes(file, "unix:dev,ino,size,ctime")))
        : Optional.empty();
  }

  static boolean isTold(Path file) {
    return file.getFileSystem().supportedFileAttributeViews().contains("unix");
  }

  static Stamp of(Map<String, Object> facts) {
    return new Stamp(
        (long) facts.get("dev"),
        (long) facts.get("ino"),
        (long) facts.get("size"),
        ((FileTime) facts.get("ctime")).to(TimeUnit.NANOSECONDS));
  }

  /**
   * Whether another change after that instant would have another stamp: within one tick of the
   * clock a file may change twice.
   *
   * @param instant nanoseconds since 1970
   */
  public boolean isSettledAt(long instant) {
    return changed + TICK < instant;
  }
}
