package jollycrate.pack;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;

/**
 * Lays down local headers, contents and the directory of an archive (APPNOTE 6.3.10, section 4.3),
 * with zip64 where 65,535 entries or 4 GB are not enough. Sizes stand in the local headers; there
 * are no data descriptors.
 */
final class ZipOut implements Closeable {
  private static final int LOCAL = 0x04034b50;
  private static final int LOCAL_SIZE = 30;
  private static final int MEMBER = 0x02014b50;
  private static final int MEMBER_SIZE = 46;
  private static final int END = 0x06054b50;
  private static final int END_SIZE = 22;
  private static final int END_64 = 0x06064b50;
  private static final int END_64_SIZE = 56;
  private static final int LOCATOR = 0x07064b50;
  private static final int LOCATOR_SIZE = 20;
  private static final long NONE = 0xFFFFFFFFL;
  private static final int MANY = 0xFFFF;
  private static final int UTF_8 = 0x800;
  private static final int PLAIN_VERSION = 20;
  private static final int ZIP_64_VERSION = 45;
  private static final int UNIX = 3 << 8;
  private static final int FILE = 0100644;
  private static final int PROGRAM = 0100755;
  private static final int FOLDER = 040755;
  private static final int BUFFER = 1 << 20;

  /** Contents of that size get room for zip64 sizes, as compressing may lengthen them. */
  private static final long NEAR_LIMIT = 4_000_000_000L;

  /** An entry as the directory will tell it. */
  private record Written(
      byte[] name, int method, long crc, long compressed, long size, long at, int mode) {}

  /** An entry whose content is being written. */
  record Open(Entry entry, int method, long size, long at, boolean wide) {}

  private final FileChannel channel;
  private final EntryTimes times;
  private final List<Written> written = new ArrayList<>();
  private final ByteBuffer buffer =
      ByteBuffer.allocateDirect(BUFFER).order(ByteOrder.LITTLE_ENDIAN);
  private long flushed;

  ZipOut(Path file, LocalDateTime time) throws IOException {
    this.channel = FileChannel.open(file, StandardOpenOption.WRITE, StandardOpenOption.CREATE);
    if (channel.tryLock() == null) {
      channel.close();
      throw new PackException(
          "Cannot write '" + file + "': another run packs the same just now. Wait for it");
    }
    channel.truncate(0);
    this.times = new EntryTimes(time);
  }

  /** Begins an entry of which everything is known. */
  void begin(Entry entry, int method, long crc, long compressed, long size) throws IOException {
    byte[] name = entry.name().getBytes(StandardCharsets.UTF_8);
    boolean wide = size >= NEAR_LIMIT || compressed >= NEAR_LIMIT;
    written.add(new Written(name, method, crc, compressed, size, position(), mode(entry)));
    header(name, method, crc, compressed, size, wide);
  }

  /** Begins an entry whose checksum and length in the archive turn out while it is written. */
  Open beginUnknown(Entry entry, int method, long size) throws IOException {
    Open open = new Open(entry, method, size, position(), size >= NEAR_LIMIT);
    header(entry.name().getBytes(StandardCharsets.UTF_8), method, 0, 0, size, open.wide());
    return open;
  }

  /** Ends it. */
  void finish(Open open, long crc, long compressed) throws IOException {
    byte[] name = open.entry().name().getBytes(StandardCharsets.UTF_8);
    written.add(
        new Written(
            name, open.method(), crc, compressed, open.size(), open.at(), mode(open.entry())));
    long end = position();
    flush();
    channel.position(open.at());
    header(name, open.method(), crc, compressed, open.size(), open.wide());
    flush();
    channel.position(end);
    flushed = end;
  }

  private void header(byte[] name, int method, long crc, long compressed, long size, boolean wide)
      throws IOException {
    room(LOCAL_SIZE);
    buffer.putInt(LOCAL);
    common(wide, method, crc, wide ? NONE : compressed, wide ? NONE : size);
    buffer.putShort((short) name.length);
    buffer.putShort((short) (wide ? 20 : 0));
    write(name, 0, name.length);
    if (wide) {
      room(20);
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
    long start = position();
    for (Written entry : written) {
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

  private void member(Written entry) throws IOException {
    boolean wideSizes = entry.size() >= NEAR_LIMIT || entry.compressed() >= NEAR_LIMIT;
    boolean wideAt = entry.at() >= NONE;
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
    buffer.putShort((short) entry.name().length);
    buffer.putShort((short) (extra > 0 ? extra + 4 : 0));
    buffer.putShort((short) 0).putShort((short) 0).putShort((short) 0);
    buffer.putInt(entry.mode() << 16);
    buffer.putInt((int) (wideAt ? NONE : entry.at()));
    write(entry.name(), 0, entry.name().length);
    if (extra > 0) {
      room(extra + 4);
      buffer.putShort((short) 1).putShort((short) extra);
      if (wideSizes) {
        buffer.putLong(entry.size()).putLong(entry.compressed());
      }
      if (wideAt) {
        buffer.putLong(entry.at());
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
