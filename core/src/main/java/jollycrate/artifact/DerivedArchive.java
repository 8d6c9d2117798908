package jollycrate.artifact;

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

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.zip.CRC32;
import java.util.zip.ZipException;
import org.apache.commons.io.input.BoundedInputStream;

/**
 * An archive with entries put in, or in place of those of the same names (APPNOTE 6.3.10, section
 * 4.3). What stands in it is neither inflated nor moved: up to its directory it is read from where
 * it stands, and behind that follow the entries and another directory, in which they come last:
 * some readers take an archive whose first entry does not begin the file for one half written.
 */
public final class DerivedArchive {

  /** The first day that an archive can tell, so that the same makes the same. */
  private static final int DAY = 0x00210000;

  private final Path file;
  private final long kept;
  private final byte[] tail;

  private DerivedArchive(Path file, long kept, byte[] tail) {
    this.file = file;
    this.kept = kept;
    this.tail = tail;
  }

  /**
   * Derives one.
   *
   * @param entries contents by path inside, few and small: they are held in memory
   * @throws IOException the file cannot be read as an archive, or is too large
   */
  public static DerivedArchive of(Path file, Map<String, byte[]> entries) throws IOException {
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
      ZipBytes bytes = ZipBytes.of(channel);
      ZipDirectory directory = new ZipDirectory(bytes);
      Tail tail = new Tail(directory.at, directory.shift);
      SortedMap<String, byte[]> sorted = new TreeMap<>(entries);
      tail.keep(
          directory,
          ByteBuffer.wrap(bytes.exactly(directory.at, directory.size))
              .order(ByteOrder.LITTLE_ENDIAN),
          sorted.keySet());
      for (Map.Entry<String, byte[]> entry : sorted.entrySet()) {
        tail.entry(entry.getKey(), entry.getValue());
      }
      return new DerivedArchive(file, directory.at, tail.end());
    }
  }

  /** Number of its bytes. */
  public long size() {
    return kept + tail.length;
  }

  /** Opens it for one reading; the caller closes. */
  public InputStream open() throws IOException {
    return new SequenceInputStream(
        BoundedInputStream.builder()
            .setInputStream(Files.newInputStream(file))
            .setMaxCount(kept)
            .get(),
        new ByteArrayInputStream(tail));
  }

  /** What stands behind the contents of the archive that it is derived from. */
  private static final class Tail {
    private final ByteArrayOutputStream contents = new ByteArrayOutputStream();
    private final ByteArrayOutputStream members = new ByteArrayOutputStream();
    private final long from;
    private final long shift;
    private int count;

    Tail(long from, long shift) {
      this.from = from;
      this.shift = shift;
    }

    void entry(String name, byte[] content) throws IOException {
      byte[] path = name.getBytes(StandardCharsets.UTF_8);
      long at = from + contents.size() - shift;
      if (at + content.length + LOCAL_SIZE + path.length >= NONE) {
        throw new ZipException("nothing can be put into an archive of 4 GB or more");
      }
      ByteBuffer local = buffer(LOCAL_SIZE).putInt(LOCAL);
      common(local, content).putShort((short) path.length).putShort((short) 0);
      contents.write(local.array());
      contents.write(path);
      contents.write(content);
      ByteBuffer member =
          buffer(MEMBER_SIZE).putInt(MEMBER).putShort((short) (UNIX | PLAIN_VERSION));
      common(member, content).putShort((short) path.length).putShort((short) 0).putShort((short) 0);
      member.putShort((short) 0).putShort((short) 0);
      member.putInt(FILE << 16).putInt((int) at);
      members.write(member.array());
      members.write(path);
      count++;
    }

    private static ByteBuffer common(ByteBuffer header, byte[] content) {
      CRC32 crc = new CRC32();
      crc.update(content);
      header
          .putShort((short) PLAIN_VERSION)
          .putShort((short) UTF_8)
          .putShort((short) ZipMember.STORED);
      header.putInt(DAY).putInt((int) crc.getValue());
      return header.putInt(content.length).putInt(content.length);
    }

    void keep(ZipDirectory directory, ByteBuffer records, Set<String> replaced) {
      int at = 0;
      for (ZipMember member : directory.members) {
        int size =
            MEMBER_SIZE
                + Short.toUnsignedInt(records.getShort(at + 28))
                + Short.toUnsignedInt(records.getShort(at + 30))
                + Short.toUnsignedInt(records.getShort(at + 32));
        if (!replaced.contains(member.name())) {
          members.write(records.array(), at, size);
          count++;
        }
        at += size;
      }
    }

    byte[] end() throws IOException {
      ByteArrayOutputStream all = new ByteArrayOutputStream();
      contents.writeTo(all);
      members.writeTo(all);
      long start = from + contents.size() - shift;
      boolean wide = count >= MANY || start + members.size() >= NONE;
      if (wide) {
        all.write(wide(start).array());
      }
      short counted = (short) (wide ? MANY : count);
      ByteBuffer end = buffer(END_SIZE).putInt(END).putInt(0).putShort(counted).putShort(counted);
      end.putInt((int) (wide ? NONE : members.size())).putInt((int) (wide ? NONE : start));
      all.write(end.array());
      return all.toByteArray();
    }

    private ByteBuffer wide(long start) {
      ByteBuffer end = buffer(END_64_SIZE + LOCATOR_SIZE);
      end.putInt(END_64).putLong(END_64_SIZE - 12L);
      end.putShort((short) (UNIX | ZIP_64_VERSION)).putShort((short) ZIP_64_VERSION).putLong(0);
      end.putLong(count).putLong(count).putLong(members.size()).putLong(start);
      return end.putInt(LOCATOR).putInt(0).putLong(start + members.size()).putInt(1);
    }

    private static ByteBuffer buffer(int size) {
      return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    }
  }
}
