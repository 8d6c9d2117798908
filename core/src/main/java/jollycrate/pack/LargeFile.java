package jollycrate.pack;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.NoSuchFileException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.Future;
import java.util.zip.CRC32;
import jollycrate.artifact.ZipMember;

/** A file too large to be held, read and compressed in blocks by several threads. */
final class LargeFile {
  private static final int BLOCK = 1 << 20;
  private static final double WORTH_IT = 0.97;

  /** A block with what it was made of; a part of the block before it precedes it. */
  private record Block(byte[] bytes, int from, byte[] deflated) {
    int length() {
      return bytes.length - from;
    }
  }

  private final Entry entry;
  private final Source.OfFile source;
  private final PackThreads threads;
  private final Compressions compressions;

  LargeFile(Entry entry, PackThreads threads, Compressions compressions) {
    this.entry = entry;
    this.source = (Source.OfFile) entry.source();
    this.threads = threads;
    this.compressions = compressions;
  }

  void write(ZipOut out) throws IOException {
    try (FileChannel in = FileChannel.open(source.path())) {
      boolean deflate = !Compression.isInVain(entry.name()) && shrinks(in);
      ZipOut.Open open =
          out.beginUnknown(entry, deflate ? ZipMember.DEFLATED : ZipMember.STORED, source.size());
      CRC32 crc = new CRC32();
      long written = 0;
      Deque<Future<Block>> ahead = new ArrayDeque<>();
      for (long at = 0; at < source.size() || !ahead.isEmpty(); ) {
        while (at < source.size() && ahead.size() <= threads.count()) {
          long from = at;
          ahead.add(threads.begin(() -> block(in, from, deflate)));
          at += BLOCK;
        }
        Block block = PackThreads.result(ahead.remove());
        crc.update(block.bytes(), block.from(), block.length());
        byte[] data = deflate ? block.deflated() : block.bytes();
        out.write(data, 0, data.length);
        written += data.length;
      }
      out.finish(open, crc.getValue(), written);
    } catch (NoSuchFileException e) {
      throw EntryReader.changed(source.path());
    }
  }

  private boolean shrinks(FileChannel in) throws IOException {
    byte[] first = new byte[(int) Math.min(source.size(), BLOCK)];
    fill(in, 0, first);
    byte[] deflated = compressions.with(compression -> compression.whole(first, first.length));
    return deflated.length < first.length * WORTH_IT;
  }

  private Block block(FileChannel in, long at, boolean deflate) throws IOException {
    int before = deflate ? (int) Math.min(at, Compression.WINDOW) : 0;
    int length = (int) Math.min(BLOCK, source.size() - at);
    byte[] bytes = new byte[before + length];
    boolean last = at + length == source.size();
    boolean longer = last && in.size() != source.size();
    if (!fill(in, at - before, bytes) || longer) {
      throw EntryReader.changed(source.path());
    }
    byte[] made =
        deflate
            ? compressions.with(compression -> compression.block(bytes, before, bytes.length, last))
            : bytes;
    return new Block(bytes, before, made);
  }

  private static boolean fill(FileChannel in, long at, byte[] into) throws IOException {
    ByteBuffer buffer = ByteBuffer.wrap(into);
    while (buffer.hasRemaining()) {
      if (in.read(buffer, at + buffer.position()) < 0) {
        return false;
      }
    }
    return true;
  }
}
