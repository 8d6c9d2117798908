package jollycrate.artifact;

import java.io.Closeable;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;

/** Bytes that can be read at any position, by any number of threads. */
interface ZipBytes extends Closeable {
  /** Bytes copied at once. */
  int BUFFER = 1 << 16;

  long length();

  /** Reads some bytes into the buffer; their number, at least 1, or -1 at the end. */
  int read(long at, ByteBuffer into) throws IOException;

  /** Exactly so many bytes. */
  default byte[] exactly(long at, int count) throws IOException {
    byte[] bytes = new byte[count];
    ByteBuffer buffer = ByteBuffer.wrap(bytes);
    while (buffer.hasRemaining()) {
      if (read(at + buffer.position(), buffer) < 0) {
        throw new EOFException("it ends early");
      }
    }
    return bytes;
  }

  /** Copies exactly so many bytes. */
  default void copy(long at, long count, WritableByteChannel to) throws IOException {
    for (long done = 0; done < count; ) {
      byte[] some = exactly(at + done, (int) Math.min(count - done, BUFFER));
      for (ByteBuffer buffer = ByteBuffer.wrap(some); buffer.hasRemaining(); ) {
        to.write(buffer);
      }
      done += some.length;
    }
  }

  @Override
  default void close() throws IOException {}

  /** Of a file. */
  static ZipBytes of(FileChannel channel) throws IOException {
    long length = channel.size();
    return new ZipBytes() {
      @Override
      public long length() {
        return length;
      }

      @Override
      public int read(long at, ByteBuffer into) throws IOException {
        return channel.read(into, at);
      }

      @Override
      public void copy(long at, long count, WritableByteChannel to) throws IOException {
        for (long done = 0; done < count; ) {
          long some = channel.transferTo(at + done, count - done, to);
          if (some <= 0) {
            throw new EOFException("it ends early");
          }
          done += some;
        }
      }

      @Override
      public void close() throws IOException {
        channel.close();
      }
    };
  }

  /** Held in memory. */
  static ZipBytes of(byte[] bytes) {
    return new ZipBytes() {
      @Override
      public long length() {
        return bytes.length;
      }

      @Override
      public int read(long at, ByteBuffer into) {
        if (at >= bytes.length) {
          return -1;
        }
        int count = (int) Math.min(into.remaining(), bytes.length - at);
        into.put(bytes, (int) at, count);
        return count;
      }
    };
  }

  /** A part of these bytes, which stay open when it is closed. */
  default ZipBytes part(long from, long count) {
    ZipBytes whole = this;
    return new ZipBytes() {
      @Override
      public long length() {
        return count;
      }

      @Override
      public int read(long at, ByteBuffer into) throws IOException {
        if (at >= count) {
          return -1;
        }
        int limit = into.limit();
        into.limit((int) Math.min(limit, into.position() + count - at));
        try {
          return whole.read(from + at, into);
        } finally {
          into.limit(limit);
        }
      }
    };
  }
}
