package jollycrate.pack;

import java.util.Arrays;
import java.util.Locale;
import java.util.Set;
import java.util.zip.Deflater;

/** Deflates (RFC 1951) with one compressor used again and again; for one thread at a time. */
final class Compression implements AutoCloseable {
  /** Bytes that a block may refer back to. */
  static final int WINDOW = 1 << 15;

  private static final Set<String> COMPRESSED_ALREADY =
      Set.of(
          "jar", "war", "zip", "gz", "br", "zst", "xz", "bz2", "7z", "png", "jpg", "jpeg", "gif",
          "webp", "avif", "woff", "woff2", "mp3", "mp4", "webm", "ogg");
  private static final int ROOM = 1 << 10;

  private final Deflater deflater = new Deflater(Deflater.DEFAULT_COMPRESSION, true);
  private byte[] out = new byte[1 << 16];

  /** Whether a file of that name is stored as it is. */
  static boolean isInVain(String name) {
    int dot = name.lastIndexOf('.');
    return COMPRESSED_ALREADY.contains(name.substring(dot + 1).toLowerCase(Locale.ROOT));
  }

  /** The whole of a content. */
  byte[] whole(byte[] content, int length) {
    deflater.reset();
    deflater.setInput(content, 0, length);
    deflater.finish();
    return run(length, Deflater.NO_FLUSH);
  }

  /**
   * A block of a longer content, to be joined with those before and after it.
   *
   * @param bytes begin with the content just before the block
   */
  byte[] block(byte[] bytes, int from, int to, boolean last) {
    deflater.reset();
    if (from > 0) {
      deflater.setDictionary(bytes, 0, from);
    }
    deflater.setInput(bytes, from, to - from);
    if (last) {
      deflater.finish();
    }
    return run(to - from, last ? Deflater.NO_FLUSH : Deflater.SYNC_FLUSH);
  }

  private byte[] run(int length, int flush) {
    int made = 0;
    if (out.length < length + ROOM) {
      out = new byte[length + (length >> 3) + ROOM];
    }
    while (true) {
      int count = deflater.deflate(out, made, out.length - made, flush);
      made += count;
      if (deflater.finished() || flush == Deflater.SYNC_FLUSH && made < out.length) {
        return Arrays.copyOf(out, made);
      }
      out = Arrays.copyOf(out, out.length * 2);
    }
  }

  @Override
  public void close() {
    deflater.end();
  }
}
