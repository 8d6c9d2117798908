package jollycrate.artifact;

import static jollycrate.artifact.ZipFormat.END;
import static jollycrate.artifact.ZipFormat.END_64;
import static jollycrate.artifact.ZipFormat.END_64_SIZE;
import static jollycrate.artifact.ZipFormat.END_SIZE;
import static jollycrate.artifact.ZipFormat.LOCATOR;
import static jollycrate.artifact.ZipFormat.LOCATOR_SIZE;
import static jollycrate.artifact.ZipFormat.MEMBER;
import static jollycrate.artifact.ZipFormat.MEMBER_SIZE;
import static jollycrate.artifact.ZipFormat.NONE;
import static jollycrate.artifact.ZipFormat.UTF_8;

import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipException;

/**
 * Reads the central directory of an archive (APPNOTE 6.3.10, sections 4.3.12 to 4.3.16), also with
 * the zip64 extensions and with other bytes before the archive. Untrusted: every position is
 * checked, sizes are bounded.
 */
final class ZipDirectory {
  /** Position of the archive in the file, when offsets do not count what stands before it. */
  final long shift;

  /** Position of the directory itself in the file. */
  final long at;

  /** Number of its bytes, without what ends it. */
  final int size;

  final List<ZipMember> members = new ArrayList<>();

  private static final int LONGEST_COMMENT = 0xFFFF;
  private static final int ZIP_64_EXTRA = 1;
  private static final long MOST_BYTES = 256 << 20;
  private static final int UNIX = 3;

  private final ZipBytes bytes;

  ZipDirectory(ZipBytes bytes) throws IOException {
    this.bytes = bytes;
    long endAt = findEnd();
    ByteBuffer end = buffer(endAt, END_SIZE);
    long size = unsigned(end.getInt(12));
    long offset = unsigned(end.getInt(16));
    long directoryEnd = endAt;
    long end64At = endAt - LOCATOR_SIZE - END_64_SIZE;
    if (end64At >= 0
        && buffer(endAt - LOCATOR_SIZE, 4).getInt(0) == LOCATOR
        && buffer(end64At, 4).getInt(0) == END_64) {
      ByteBuffer end64 = buffer(end64At, END_64_SIZE);
      size = end64.getLong(40);
      offset = end64.getLong(48);
      directoryEnd = end64At;
    }
    long start = directoryEnd - size;
    if (size < 0 || start < 0 || size > MOST_BYTES || offset < 0 || offset > start) {
      throw new ZipException("its directory is damaged");
    }
    this.at = start;
    this.size = (int) size;
    this.shift = start - offset;
    readMembers(buffer(start, this.size));
  }

  private ByteBuffer buffer(long at, int count) throws IOException {
    return ByteBuffer.wrap(bytes.exactly(at, count)).order(ByteOrder.LITTLE_ENDIAN);
  }

  private long findEnd() throws IOException {
    int tail = (int) Math.min(bytes.length(), END_SIZE + LONGEST_COMMENT);
    if (tail < END_SIZE) {
      throw new ZipException(tail == 0 ? "it is empty" : "it is too short");
    }
    long from = bytes.length() - tail;
    ByteBuffer read = buffer(from, tail);
    for (int at = tail - END_SIZE; at >= 0; at--) {
      if (read.getInt(at) == END
          && at + END_SIZE + Short.toUnsignedInt(read.getShort(at + 20)) <= tail) {
        return from + at;
      }
    }
    throw new ZipException("it has no archive directory at its end; it is cut off or no archive");
  }

  private void readMembers(ByteBuffer in) throws IOException {
    while (in.remaining() >= MEMBER_SIZE && in.getInt(in.position()) == MEMBER) {
      int start = in.position();
      int nameSize = Short.toUnsignedInt(in.getShort(start + 28));
      int extraSize = Short.toUnsignedInt(in.getShort(start + 30));
      int commentSize = Short.toUnsignedInt(in.getShort(start + 32));
      if (in.remaining() < MEMBER_SIZE + nameSize + extraSize + commentSize) {
        throw new ZipException("its directory is damaged");
      }
      members.add(member(in, start, nameSize, extraSize));
      in.position(start + MEMBER_SIZE + nameSize + extraSize + commentSize);
    }
    if (in.hasRemaining()) {
      throw new ZipException("its directory is damaged");
    }
  }

  private ZipMember member(ByteBuffer in, int start, int nameSize, int extraSize)
      throws IOException {
    int flags = Short.toUnsignedInt(in.getShort(start + 8));
    byte[] name = new byte[nameSize];
    in.get(start + MEMBER_SIZE, name);
    long compressed = unsigned(in.getInt(start + 20));
    long size = unsigned(in.getInt(start + 24));
    long offset = unsigned(in.getInt(start + 42));
    int madeBy = in.get(start + 5);
    ByteBuffer extra = zip64(in, start + MEMBER_SIZE + nameSize, extraSize);
    try {
      size = size == NONE ? extra.getLong() : size;
      compressed = compressed == NONE ? extra.getLong() : compressed;
      offset = offset == NONE ? extra.getLong() : offset;
    } catch (BufferUnderflowException e) {
      throw new ZipException("its directory is damaged");
    }
    ZipMember member =
        new ZipMember(
            text(name, flags),
            Short.toUnsignedInt(in.getShort(start + 10)),
            flags,
            unsigned(in.getInt(start + 16)),
            compressed,
            size,
            shift + offset,
            madeBy == UNIX ? in.getInt(start + 38) >>> 16 : 0);
    if (size < 0 || compressed < 0 || offset < 0 || member.headerAt() > bytes.length()) {
      throw new ZipException("entry '" + member.name() + "' points outside the file");
    }
    return member;
  }

  /** The content of the zip64 extra field, empty when there is none. */
  private static ByteBuffer zip64(ByteBuffer in, int from, int size) {
    int at = from;
    while (at + 4 <= from + size) {
      int id = Short.toUnsignedInt(in.getShort(at));
      int length = Math.min(Short.toUnsignedInt(in.getShort(at + 2)), from + size - at - 4);
      if (id == ZIP_64_EXTRA) {
        return in.slice(at + 4, length).order(ByteOrder.LITTLE_ENDIAN);
      }
      at += 4 + length;
    }
    return ByteBuffer.allocate(0);
  }

  /** Old archives write names in the encoding of their machine and do not tell which. */
  private static String text(byte[] name, int flags) {
    Charset unknown = StandardCharsets.ISO_8859_1;
    if (isAscii(name)) {
      return new String(name, StandardCharsets.ISO_8859_1);
    }
    if ((flags & UTF_8) != 0) {
      return new String(name, StandardCharsets.UTF_8);
    }
    try {
      return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(name)).toString();
    } catch (CharacterCodingException e) {
      return new String(name, unknown);
    }
  }

  private static boolean isAscii(byte[] name) {
    for (byte b : name) {
      if (b < 0) {
        return false;
      }
    }
    return true;
  }

  private static long unsigned(int value) {
    return Integer.toUnsignedLong(value);
  }
}
