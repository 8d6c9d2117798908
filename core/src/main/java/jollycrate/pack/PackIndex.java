package jollycrate.pack;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.Stamp;

/**
 * Which file each entry of an artifact was read from, by its stamp: what has the same stamp still
 * is what stands compressed in the artifact. It stands beside the artifact and counts for that very
 * file only. A file that changed within one tick of the clock before it was read is not in it, as a
 * second change could hide.
 */
final class PackIndex {
  /** Rises when the same file would be written in another way, too. */
  private static final int FORMAT = 1;

  private static final int HEAD = Integer.BYTES + Long.BYTES;
  private static final int STAMP = 4 * Long.BYTES;
  private static final int MOST_BYTES = 1 << 26;
  private static final Stamp NONE = new Stamp(0, 0, 0, 0);

  private final Map<String, Stamp> stamps;

  private PackIndex(Map<String, Stamp> stamps) {
    this.stamps = stamps;
  }

  private static Path place(Path artifact) {
    return artifact.resolveSibling("." + artifact.getFileName() + ".index");
  }

  /**
   * The index of an artifact; an empty one when there is none, or it was made for another file.
   *
   * @param time that the entries of the new artifact are given
   */
  static PackIndex of(Path artifact, ZipArchive archive, LocalDateTime time) throws IOException {
    Path file = place(artifact);
    List<ZipMember> members = archive.members();
    long size = HEAD + STAMP * (members.size() + 1L);
    Optional<Stamp> now = Stamp.of(artifact);
    if (now.isEmpty()
        || size > MOST_BYTES
        || !Files.isRegularFile(file)
        || Files.size(file) != size) {
      return new PackIndex(Map.of());
    }
    ByteBuffer bytes = ByteBuffer.wrap(Files.readAllBytes(file));
    boolean fits =
        bytes.limit() == size
            && bytes.getInt() == FORMAT
            && bytes.getLong() == time.toEpochSecond(ZoneOffset.UTC)
            && stamp(bytes).equals(now.get());
    return new PackIndex(fits ? stamps(bytes, members) : Map.of());
  }

  private static Map<String, Stamp> stamps(ByteBuffer bytes, List<ZipMember> members) {
    Map<String, Stamp> stamps = new HashMap<>(members.size() * 2);
    for (ZipMember member : members) {
      stamps.put(member.name(), stamp(bytes));
    }
    return stamps;
  }

  private static Stamp stamp(ByteBuffer bytes) {
    return new Stamp(bytes.getLong(), bytes.getLong(), bytes.getLong(), bytes.getLong());
  }

  /** Whether the entry of that name holds what a file of that stamp holds. */
  boolean knows(String name, Stamp stamp) {
    return !stamp.equals(NONE) && stamp.equals(stamps.get(name));
  }

  /**
   * Writes the index of an artifact that stands in its place.
   *
   * @param begun nanoseconds since 1970 before the first of them
   */
  static void write(Path artifact, LocalDateTime time, List<Entry> entries, long begun)
      throws IOException {
    Optional<Stamp> own = Stamp.of(artifact);
    List<Stamp> read = entries.stream().map(entry -> settled(entry, begun)).toList();
    long size = HEAD + STAMP * (entries.size() + 1L);
    if (own.isEmpty() || size > MOST_BYTES || read.stream().allMatch(NONE::equals)) {
      return;
    }
    ByteBuffer bytes = ByteBuffer.allocate((int) size);
    bytes.putInt(FORMAT).putLong(time.toEpochSecond(ZoneOffset.UTC));
    put(bytes, own.get());
    read.forEach(stamp -> put(bytes, stamp));
    Path file = place(artifact);
    Path beside = file.resolveSibling(file.getFileName() + ".part");
    Files.write(beside, bytes.array());
    Packer.move(beside, file);
  }

  private static Stamp settled(Entry entry, long begun) {
    return entry.source() instanceof Source.OfFile read
        ? read.stamp().filter(stamp -> stamp.isSettledAt(begun)).orElse(NONE)
        : NONE;
  }

  private static void put(ByteBuffer bytes, Stamp stamp) {
    bytes.putLong(stamp.device()).putLong(stamp.inode());
    bytes.putLong(stamp.size()).putLong(stamp.changed());
  }
}
