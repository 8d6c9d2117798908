package jollycrate.artifact;

import static jollycrate.artifact.ZipFormat.LOCAL;
import static jollycrate.artifact.ZipFormat.LOCAL_SIZE;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;
import java.util.zip.ZipException;

/**
 * An archive open for reading: its entries in the order of its directory, their content inflated or
 * as it stands. Untrusted: what the directory says of an entry is checked against the content.
 */
public final class ZipArchive implements Closeable {
  private static final int BUFFER = 1 << 16;
  private static final int HEAD_WINDOW = 256;

  /** Their native memory is worth keeping; there are never more than threads that read. */
  private static final Queue<Inflater> INFLATERS = new ConcurrentLinkedQueue<>();

  private final ZipBytes bytes;
  private final ZipDirectory directory;
  private final Map<String, ZipMember> byName;
  private final List<ZipMember> members;
  private final List<String> repeated = new ArrayList<>();

  private ZipArchive(ZipBytes bytes) throws IOException {
    this.bytes = bytes;
    this.directory = new ZipDirectory(bytes);
    this.byName = new HashMap<>(directory.members.size() * 2);
    List<ZipMember> first = new ArrayList<>(directory.members.size());
    for (ZipMember member : directory.members) {
      if (byName.putIfAbsent(member.name(), member) != null) {
        repeated.add(member.name());
      } else {
        first.add(member);
      }
    }
    this.members = List.copyOf(first);
  }

  /** Opens a file. */
  public static ZipArchive open(Path file) throws IOException {
    FileChannel channel = FileChannel.open(file, StandardOpenOption.READ);
    try {
      return new ZipArchive(ZipBytes.of(channel));
    } catch (IOException | RuntimeException e) {
      channel.close();
      throw e;
    }
  }

  /**
   * Opens an archive that stands in this one; valid as long as this one is open.
   *
   * @param most bytes to hold when it is deflated
   */
  public ZipArchive inside(ZipMember member, int most) throws IOException {
    if (member.method() == ZipMember.STORED) {
      return new ZipArchive(bytes.part(contentAt(member), member.compressed()));
    }
    return new ZipArchive(ZipBytes.of(read(member, most)));
  }

  /** Number of its bytes. */
  public long size() {
    return bytes.length();
  }

  /** Files and folders, each name once, in the order of the directory. */
  public List<ZipMember> members() {
    return members;
  }

  /** Names that stand in it more than once. */
  public List<String> repeated() {
    return List.copyOf(repeated);
  }

  /** The entry of that name. */
  public Optional<ZipMember> member(String name) {
    return Optional.ofNullable(byName.get(name));
  }

  /** Number of bytes before the first entry: of a script, when it starts by itself. */
  public long leading() {
    return directory.members.stream().mapToLong(ZipMember::headerAt).min().orElse(0);
  }

  /** The first bytes of the file. */
  public byte[] beginning(int count) throws IOException {
    return bytes.exactly(0, (int) Math.min(count, bytes.length()));
  }

  /** Position of the content of an entry, past its local header. */
  public long contentAt(ZipMember member) throws IOException {
    ByteBuffer local =
        ByteBuffer.wrap(bytes.exactly(member.headerAt(), LOCAL_SIZE))
            .order(ByteOrder.LITTLE_ENDIAN);
    if (local.getInt(0) != LOCAL) {
      throw new ZipException("entry '" + member.name() + "' is not where the directory says");
    }
    int name = Short.toUnsignedInt(local.getShort(26));
    int extra = Short.toUnsignedInt(local.getShort(28));
    long at = member.headerAt() + LOCAL_SIZE + name + extra;
    if (at + member.compressed() > bytes.length()) {
      throw new ZipException("entry '" + member.name() + "' is cut off");
    }
    return at;
  }

  /** The content of an entry as it is compressed; for entries that fit in memory. */
  public byte[] packed(ZipMember member) throws IOException {
    int guess = LOCAL_SIZE + member.name().length();
    int whole = (int) Math.min(guess + member.compressed(), bytes.length() - member.headerAt());
    byte[] read = bytes.exactly(member.headerAt(), whole);
    ByteBuffer local = ByteBuffer.wrap(read).order(ByteOrder.LITTLE_ENDIAN);
    boolean guessed =
        whole >= LOCAL_SIZE
            && local.getInt(0) == LOCAL
            && local.getShort(26) == member.name().length()
            && local.getShort(28) == 0
            && whole == guess + member.compressed();
    return guessed
        ? Arrays.copyOfRange(read, guess, whole)
        : raw(contentAt(member), (int) member.compressed());
  }

  /** Reads bytes of the file as they stand. */
  public byte[] raw(long at, int count) throws IOException {
    return bytes.exactly(at, count);
  }

  /** Copies bytes of the file as they stand. */
  public void copy(long at, long count, WritableByteChannel to) throws IOException {
    bytes.copy(at, count, to);
  }

  /**
   * The whole content of an entry.
   *
   * @throws ZipException when it is larger than allowed or not what the directory says
   */
  public byte[] read(ZipMember member, int most) throws IOException {
    if (member.size() > most) {
      throw new ZipException("entry '" + member.name() + "' is larger than " + most + " bytes");
    }
    refuseUnreadable(member);
    if (member.compressed() > most) {
      throw damaged(member);
    }
    byte[] raw = packed(member);
    byte[] content = member.method() == ZipMember.STORED ? raw : inflated(member, raw);
    CRC32 crc = new CRC32();
    crc.update(content);
    if (content.length != member.size() || crc.getValue() != member.crc()) {
      throw damaged(member);
    }
    return content;
  }

  private byte[] inflated(ZipMember member, byte[] raw) throws ZipException {
    byte[] content = new byte[(int) member.size()];
    Inflater inflater = INFLATERS.poll();
    inflater = inflater == null ? new Inflater(true) : inflater;
    try {
      inflater.reset();
      inflater.setInput(raw);
      int made = 0;
      while (made < content.length && !inflater.finished() && !inflater.needsInput()) {
        made += inflater.inflate(content, made, content.length - made);
      }
      boolean whole =
          made == content.length
              && (inflater.finished() || inflater.inflate(new byte[1]) == 0 && inflater.finished());
      if (!whole) {
        throw damaged(member);
      }
      return content;
    } catch (DataFormatException e) {
      throw damaged(member);
    } finally {
      INFLATERS.add(inflater);
    }
  }

  private static ZipException damaged(ZipMember member) {
    return new ZipException("entry '" + member.name() + "' is damaged");
  }

  private static void refuseUnreadable(ZipMember member) throws ZipException {
    if (member.isEncrypted()) {
      throw new ZipException("entry '" + member.name() + "' is encrypted");
    }
    if (member.method() != ZipMember.STORED && member.method() != ZipMember.DEFLATED) {
      throw new ZipException(
          "entry '" + member.name() + "' is packed by method " + member.method());
    }
  }

  /** The content of an entry; reading to its end checks length and CRC-32. */
  public InputStream open(ZipMember member) throws IOException {
    refuseUnreadable(member);
    InputStream raw = new Raw(contentAt(member), member.compressed());
    int buffer = (int) Math.min(BUFFER, Math.max(1, member.compressed()));
    return new Checked(
        member.method() == ZipMember.STORED ? raw : new Inflating(raw, buffer), member);
  }

  /**
   * The first bytes of an entry, fewer when it is shorter; nothing is checked.
   *
   * @param inflater for raw deflated data, used again and again
   */
  byte[] head(ZipMember member, int count, Inflater inflater) throws IOException {
    refuseUnreadable(member);
    int window = (int) Math.min(HEAD_WINDOW, member.compressed());
    byte[] raw = bytes.exactly(contentAt(member), window);
    if (member.method() == ZipMember.STORED) {
      return Arrays.copyOf(raw, Math.min(count, raw.length));
    }
    inflater.reset();
    inflater.setInput(raw);
    byte[] head = new byte[count];
    try {
      return Arrays.copyOf(head, inflater.inflate(head));
    } catch (DataFormatException e) {
      throw damaged(member);
    }
  }

  @Override
  public void close() throws IOException {
    bytes.close();
  }

  /** Reads runs of bytes, and a single one as a run. */
  private abstract static class ByRuns extends InputStream {
    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public abstract int read(byte[] into, int from, int most) throws IOException;
  }

  /** A run of the file's bytes. */
  private final class Raw extends ByRuns {
    private long at;
    private long left;

    Raw(long at, long left) {
      this.at = at;
      this.left = left;
    }

    @Override
    public int read(byte[] into, int from, int most) throws IOException {
      if (left == 0) {
        return -1;
      }
      int count = bytes.read(at, ByteBuffer.wrap(into, from, (int) Math.min(most, left)));
      if (count > 0) {
        at += count;
        left -= count;
      }
      return count;
    }
  }

  /** Inflates; its native memory goes with it. */
  private static final class Inflating extends InflaterInputStream {
    Inflating(InputStream raw, int buffer) {
      super(raw, new Inflater(true), buffer);
    }

    @Override
    public void close() throws IOException {
      inf.end();
      super.close();
    }
  }

  /** Holds an entry to what the directory says of it. */
  private static final class Checked extends ByRuns {
    private final InputStream in;
    private final ZipMember member;
    private final CRC32 crc = new CRC32();
    private long count;

    Checked(InputStream in, ZipMember member) {
      this.in = in;
      this.member = member;
    }

    @Override
    public int read(byte[] into, int from, int most) throws IOException {
      int read = in.read(into, from, most);
      if (read > 0) {
        crc.update(into, from, read);
        count += read;
      }
      boolean ended = read < 0 && most > 0;
      if (count > member.size() || ended && (count < member.size() || differs())) {
        throw damaged(member);
      }
      return read;
    }

    private boolean differs() {
      return crc.getValue() != member.crc();
    }

    @Override
    public void close() throws IOException {
      in.close();
    }
  }
}
