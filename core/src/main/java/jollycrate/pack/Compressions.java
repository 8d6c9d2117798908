package jollycrate.pack;

import java.io.Closeable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Function;

/** As many compressors as there are threads that compress; their memory is worth keeping. */
final class Compressions implements Closeable {
  private final ConcurrentLinkedQueue<Compression> idle = new ConcurrentLinkedQueue<>();

  /** Compresses with one that nobody else uses meanwhile. */
  byte[] with(Function<Compression, byte[]> work) {
    Compression found = idle.poll();
    Compression compression = found == null ? new Compression() : found;
    byte[] made = work.apply(compression);
    idle.add(compression);
    return made;
  }

  @Override
  public void close() {
    idle.forEach(Compression::close);
  }
}
