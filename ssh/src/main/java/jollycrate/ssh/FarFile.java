package jollycrate.ssh;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.Path;
import jollycrate.host.HostFiles;

/** A file of another machine, to be read here and there; its end is fetched first, and kept. */
final class FarFile implements SeekableByteChannel {
  private static final int PIECE = 1 << 17;

  private final HostFiles files;
  private final Path file;
  private final long size;
  private long position;
  private long from;
  private byte[] piece = new byte[0];

  FarFile(HostFiles files, Path file, long size) {
    this.files = files;
    this.file = file;
    this.size = size;
  }

  @Override
  public int read(ByteBuffer into) {
    if (position >= size) {
      return -1;
    }
    if (position < from || position >= from + piece.length) {
      from = Math.max(0, Math.min(position, size - PIECE));
      piece = files.read(file, from, PIECE);
    }
    int offset = (int) (position - from);
    int count = Math.min(into.remaining(), piece.length - offset);
    if (count <= 0) {
      return -1;
    }
    into.put(piece, offset, count);
    position += count;
    return count;
  }

  @Override
  public long position() {
    return position;
  }

  @Override
  public SeekableByteChannel position(long there) {
    position = there;
    return this;
  }

  @Override
  public long size() {
    return size;
  }

  @Override
  public int write(ByteBuffer bytes) throws IOException {
    throw new IOException("to be read only");
  }

  @Override
  public SeekableByteChannel truncate(long length) throws IOException {
    throw new IOException("to be read only");
  }

  @Override
  public boolean isOpen() {
    return true;
  }

  @Override
  public void close() {}
}
