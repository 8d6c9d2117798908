package jollycrate.pack;

import static jollycrate.artifact.ZipFormat.END;
import static jollycrate.artifact.ZipFormat.END_64;
import static jollycrate.artifact.ZipFormat.END_64_SIZE;
import static jollycrate.artifact.ZipFormat.END_SIZE;
import static jollycrate.artifact.ZipFormat.FILE;
import static jollycrate.artifact.ZipFormat.LOCAL;
import static jollycrate.artifact.ZipFormat.LOCAL_SIZE;
import static jollycrate.artifact.ZipFormat.LOCATOR;
import static jollycrate.artifact.ZipFormat.LOCATOR_SIZE;
import static jollycrate.artifact.ZipFormat.MANY;
import static jollycrate.artifact.ZipFormat.MEMBER;
import static jollycrate.artifact.ZipFormat.MEMBER_SIZE;
import static jollycrate.artifact.ZipFormat.NONE;
import static jollycrate.artifact.ZipFormat.PLAIN_VERSION;
import static jollycrate.artifact.ZipFormat.UNIX;
import static jollycrate.artifact.ZipFormat.UTF_8;
import static jollycrate.artifact.ZipFormat.ZIP_64_VERSION;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/**
 * Lays down local headers, contents and the directory of an archive (APPNOTE 6.3.10, section 4.3),
 * with zip64 where 65,535 entries or 4 GB are not enough. Sizes stand in the local headers; there
 * are no data descriptors.
 */
final class ZipOut implements Closeable {
  private static final int COMPARED = 1 << 20;
  private static final int PROGRAM = 0100755;
  private static final int FOLDER = 040755;
  private static final int WIDE_SIZES = 20;
  private static final int BUFFER = 1 << 20;

  /** Contents of that size get room for zip64 sizes, as compressing may lengthen them. */
  private static final long NEAR_LIMIT = 4_000_000_000L;

  /** An entry whose content is being written. */
  record Open(Entry entry, int method, long size, long at, boolean wide) {}

  private final FileChannel channel;
  private final EntryTimes times;
  private final List<ZipMember> written = new ArrayList<>();
  private final ByteBuffer buffer =
      ByteBuffer.allocateDirect(BUFFER).order(ByteOrder.LITTLE_ENDIAN);
  private long flushed;
  private Optional<Run> run = Optional.empty();

  /** Entries one after another in another archive, to be copied at once. */
  private record Run(ZipArchive from, long at, long length) {
    boolean goesOn(ZipArchive archive, long next) {
      return archive == from && next == at + length;
    }
  }

  ZipOut(Path file, LocalDateTime time) throws IOException {
    Optional<Object> before = key(file);
    this.channel =
        FileChannel.open(
            file, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.CREATE);
    boolean locked = channel.tryLock() != null;
    Optional<Object> now = key(file);
    boolean renamed = now.isEmpty() || before.isPresent() && !before.equals(now);
    if (!locked || renamed) {
      channel.close();
      throw new PackException(
          "Cannot write '" + file + "': another run packs the same just now. Wait for it");
    }
    channel.truncate(0);
    this.times = new EntryTimes(time);
  }

  /** What stands at a path: whoever renames a file away from it leaves another, or nothing. */
  private static Optional<Object> key(Path file) throws IOException {
    try {
      return Optional.ofNullable(Files.readAttributes(file, BasicFileAttributes.class).fileKey());
    } catch (NoSuchFileException absent) {
      return Optional.empty();
    }
  }

  /**
   * Whether a file holds the same bytes. What was written is read where it is locked: a second
   * opening of it would end the lock once it is closed (fcntl(2)).
   */
  boolean isSameAs(Path other) throws IOException {
    flush();
    if (!Files.isRegularFile(other) || Files.size(other) != channel.size()) {
      return false;
    }
    ByteBuffer mine = ByteBuffer.allocate(COMPARED);
    byte[] theirs = new byte[COMPARED];
    try (InputStream in = Files.newInputStream(other)) {
      for (long at = 0; at < channel.size(); at += COMPARED) {
        mine.clear();
        int length = 0;
        while (mine.hasRemaining() && channel.read(mine, at + length) > 0) {
          length = mine.position();
        }
        int read = in.readNBytes(theirs, 0, COMPARED);
        if (read != length || !Arrays.equals(mine.array(), 0, length, theirs, 0, length)) {
          return false;
        }
      }
      return true;
    }
  }

  /** Begins an entry of which everything is known. */
  void begin(Entry entry, int method, long crc, long compressed, long size) throws IOException {
    endRun();
    written.add(member(entry, method, crc, compressed, size, position()));
    header(entry, method, crc, compressed, size, isWide(compressed, size));
  }

  /** Begins an entry whose checksum and length in the archive turn out while it is written. */
  Open beginUnknown(Entry entry, int method, long size) throws IOException {
    endRun();
    Open open = new Open(entry, method, size, position(), size >= NEAR_LIMIT);
    header(entry, method, 0, 0, size, open.wide());
    return open;
  }

  /** Ends it. */
  void finish(Open open, long crc, long compressed) throws IOException {
    written.add(member(open.entry(), open.method(), crc, compressed, open.size(), open.at()));
    long end = position();
    flush();
    channel.position(open.at());
    header(open.entry(), open.method(), crc, compressed, open.size(), open.wide());
    flush();
    channel.position(end);
    flushed = end;
  }

  /**
   * Takes over an entry, header and all, from an archive that was written in this way, with the
   * same time.
   */
  void take(Entry entry, ZipArchive from, ZipMember member) throws IOException {
    if (run.isEmpty() || !run.get().goesOn(from, member.headerAt())) {
      endRun();
      run = Optional.of(new Run(from, member.headerAt(), 0));
    }
    Run before = run.get();
    written.add(
        member(
            entry,
            member.method(),
            member.crc(),
            member.compressed(),
            member.size(),
            position() + before.length()));
    long header =
        LOCAL_SIZE
            + member.name().getBytes(StandardCharsets.UTF_8).length
            + (isWide(member.compressed(), member.size()) ? WIDE_SIZES : 0);
    run = Optional.of(new Run(from, before.at(), before.length() + header + member.compressed()));
  }

  private void endRun() throws IOException {
    if (run.isPresent()) {
      flush();
      run.get().from().copy(run.get().at(), run.get().length(), channel);
      flushed += run.get().length();
      run = Optional.empty();
    }
  }

  /** What was written so far, as the directory tells it. */
  List<ZipMember> members() {
    return written;
  }

  private static boolean isWide(long compressed, long size) {
    return size >= NEAR_LIMIT || compressed >= NEAR_LIMIT;
  }

  private static ZipMember member(
      Entry entry, int method, long crc, long compressed, long size, long at) {
    return new ZipMember(entry.name(), method, UTF_8, crc, compressed, size, at, mode(entry));
  }

  private void header(Entry entry, int method, long crc, long compressed, long size, boolean wide)
      throws IOException {
    byte[] name = entry.name().getBytes(StandardCharsets.UTF_8);
    room(LOCAL_SIZE);
    buffer.putInt(LOCAL);
    common(wide, method, crc, wide ? NONE : compressed, wide ? NONE : size);
    buffer.putShort((short) name.length);
    buffer.putShort((short) (wide ? WIDE_SIZES : 0));
    write(name, 0, name.length);
    if (wide) {
      room(WIDE_SIZES);
      buffer.putShort((short) 1).putShort((short) 16).putLong(size).putLong(compressed);
    }
  }

  private void common(boolean wide, int method, long crc, long compressed, long size) {
    buffer.putShort((short) (wide ? ZIP_64_VERSION : PLAIN_VERSION));
    buffer.putShort((short) UTF_8);
    buffer.putShort((short) method);
    buffer.putInt(times.of(crc));
    buffer.putInt((int) crc);
    buffer.putInt((int) compressed);
    buffer.putInt((int) size);
  }

  void write(byte[] bytes, int from, int count) throws IOException {
    for (int at = from; at < from + count; ) {
      room(1);
      int some = Math.min(buffer.remaining(), from + count - at);
      buffer.put(bytes, at, some);
      at += some;
    }
  }

  /** Writes the directory. */
  void end() throws IOException {
    endRun();
    long start = position();
    for (ZipMember entry : written) {
      member(entry);
    }
    long size = position() - start;
    boolean wide = written.size() >= MANY || start >= NONE || size >= NONE;
    if (wide) {
      wideEnd(start, size);
    }
    room(END_SIZE);
    int count = wide ? MANY : written.size();
    buffer.putInt(END).putShort((short) 0).putShort((short) 0);
    buffer.putShort((short) count).putShort((short) count);
    buffer.putInt((int) (wide ? NONE : size)).putInt((int) (wide ? NONE : start));
    buffer.putShort((short) 0);
    flush();
  }

  private void member(ZipMember entry) throws IOException {
    byte[] name = entry.name().getBytes(StandardCharsets.UTF_8);
    boolean wideSizes = isWide(entry.compressed(), entry.size());
    boolean wideAt = entry.headerAt() >= NONE;
    int extra = (wideSizes ? 16 : 0) + (wideAt ? 8 : 0);
    room(MEMBER_SIZE);
    buffer.putInt(MEMBER);
    buffer.putShort((short) (UNIX | (extra > 0 ? ZIP_64_VERSION : PLAIN_VERSION)));
    common(
        extra > 0,
        entry.method(),
        entry.crc(),
        wideSizes ? NONE : entry.compressed(),
        wideSizes ? NONE : entry.size());
    buffer.putShort((short) name.length);
    buffer.putShort((short) (extra > 0 ? extra + 4 : 0));
    buffer.putShort((short) 0).putShort((short) 0).putShort((short) 0);
    buffer.putInt(entry.unixMode() << 16);
    buffer.putInt((int) (wideAt ? NONE : entry.headerAt()));
    write(name, 0, name.length);
    if (extra > 0) {
      room(extra + 4);
      buffer.putShort((short) 1).putShort((short) extra);
      if (wideSizes) {
        buffer.putLong(entry.size()).putLong(entry.compressed());
      }
      if (wideAt) {
        buffer.putLong(entry.headerAt());
      }
    }
  }

  private void wideEnd(long start, long size) throws IOException {
    long at = position();
    room(END_64_SIZE + LOCATOR_SIZE);
    buffer.putInt(END_64).putLong(END_64_SIZE - 12);
    buffer.putShort((short) (UNIX | ZIP_64_VERSION)).putShort((short) ZIP_64_VERSION);
    buffer.putInt(0).putInt(0);
    buffer.putLong(written.size()).putLong(written.size());
    buffer.putLong(size).putLong(start);
    buffer.putInt(LOCATOR).putInt(0).putLong(at).putInt(1);
  }

  private static int mode(Entry entry) {
    return entry.isFolder() ? FOLDER : entry.executable() ? PROGRAM : FILE;
  }

  private long position() {
    return flushed + buffer.position();
  }

  private void room(int bytes) throws IOException {
    if (buffer.remaining() < bytes) {
      flush();
    }
  }

  private void flush() throws IOException {
    buffer.flip();
    flushed += buffer.remaining();
    while (buffer.hasRemaining()) {
      channel.write(buffer);
    }
    buffer.clear();
  }

  /** The content is on the disk when it returns. */
  void sync() throws IOException {
    channel.force(true);
  }

  @Override
  public void close() throws IOException {
    channel.close();
  }
}
