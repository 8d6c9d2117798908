package jollycrate.pack;

import java.io.Closeable;
import java.io.FileInputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import java.util.function.LongConsumer;
import java.util.zip.CRC32;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/**
 * Writes the entries of an archive in their order while several threads read and compress ahead.
 * What it holds in memory is bounded, whatever the sizes; the bytes it writes do not depend on the
 * number of threads.
 */
final class ZipWriter implements Closeable {
  /** Larger contents are read and compressed block by block. */
  static final int BLOCK = 1 << 20;

  private static final int BATCH = 64;
  private static final long BATCH_BYTES = 1 << 19;
  private static final long MOST_BYTES_WAITING = 16 << 20;
  private static final double WORTH_IT = 0.97;

  /** Entries that somebody works on, several as handing over costs more than a small file. */
  private record Waiting(List<Entry> entries, long weight, Future<List<Content>> contents) {}

  /** What becomes of a content. */
  private sealed interface Content {
    /** Ready to be written. */
    record Ready(int method, long crc, long size, byte[] data) implements Content {}

    /** Stands compressed in another archive. */
    record Elsewhere(ZipArchive archive, ZipMember member) implements Content {}

    /** Too large to be held. */
    record Large() implements Content {}
  }

  /** A compressed block with what it was made of. */
  private record Block(byte[] bytes, int from, byte[] deflated) {
    int length() {
      return bytes.length - from;
    }
  }

  private final ZipOut out;
  private final Optional<Earlier> earlier;
  private final LongConsumer progress;
  private final int threads = Runtime.getRuntime().availableProcessors();
  private final ExecutorService workers = Executors.newFixedThreadPool(threads, ZipWriter::thread);
  private final ConcurrentLinkedQueue<Compression> idle = new ConcurrentLinkedQueue<>();
  private final Deque<Waiting> waiting = new ArrayDeque<>();
  private long bytesWaiting;

  /**
   * @param progress is told bytes of content that were written
   */
  ZipWriter(ZipOut out, Optional<Earlier> earlier, LongConsumer progress) {
    this.out = out;
    this.earlier = earlier;
    this.progress = progress;
  }

  private static Thread thread(Runnable work) {
    Thread thread = new Thread(work, "pack");
    thread.setDaemon(true);
    return thread;
  }

  /** Writes all entries and the directory. */
  void write(Iterable<Entry> entries) throws IOException {
    List<Entry> batch = new ArrayList<>();
    long weight = 0;
    for (Entry entry : entries) {
      batch.add(entry);
      weight += Math.min(entry.source().size(), BLOCK);
      if (batch.size() >= BATCH || weight >= BATCH_BYTES) {
        work(batch, weight);
        batch = new ArrayList<>();
        weight = 0;
      }
    }
    work(batch, weight);
    while (!waiting.isEmpty()) {
      finishFirst();
    }
    out.end();
  }

  private void work(List<Entry> batch, long weight) throws IOException {
    waiting.add(new Waiting(batch, weight, begin(() -> contents(batch))));
    bytesWaiting += weight;
    while (bytesWaiting > MOST_BYTES_WAITING) {
      finishFirst();
    }
  }

  private List<Content> contents(List<Entry> batch) throws IOException {
    List<Content> contents = new ArrayList<>(batch.size());
    for (Entry entry : batch) {
      contents.add(content(entry));
    }
    return contents;
  }

  private <T> Future<T> begin(Callable<T> work) {
    FutureTask<T> task = new FutureTask<>(work);
    workers.execute(task);
    return task;
  }

  private void finishFirst() throws IOException {
    Waiting first = waiting.remove();
    bytesWaiting -= first.weight();
    List<Content> contents = result(first.contents());
    for (int i = 0; i < contents.size(); i++) {
      finish(first.entries().get(i), contents.get(i));
    }
  }

  private void finish(Entry entry, Content content) throws IOException {
    if (content instanceof Content.Ready ready) {
      out.begin(entry, ready.method(), ready.crc(), ready.data().length, ready.size());
      out.write(ready.data(), 0, ready.data().length);
    } else if (content instanceof Content.Elsewhere elsewhere) {
      copy(entry, elsewhere.archive(), elsewhere.member());
    } else {
      writeLarge(entry);
    }
    progress.accept(entry.source().size());
  }

  private static <T> T result(Future<T> future) throws IOException {
    try {
      return future.get();
    } catch (ExecutionException e) {
      if (e.getCause() instanceof IOException io) {
        throw io;
      }
      if (e.getCause() instanceof PackException pack) {
        throw pack;
      }
      throw new IllegalStateException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("packing was interrupted", e);
    }
  }

  private Content content(Entry entry) throws IOException {
    Source source = entry.source();
    if (source instanceof Source.OfMember member) {
      return verified(member);
    }
    if (source.size() > BLOCK) {
      return new Content.Large();
    }
    byte[] content = small(source);
    CRC32 crc = new CRC32();
    crc.update(content);
    Optional<ZipMember> stands = standing(entry, content, crc.getValue());
    if (stands.isPresent()) {
      byte[] packed = earlier.orElseThrow().archive().packed(stands.get());
      return new Content.Ready(ZipMember.DEFLATED, crc.getValue(), content.length, packed);
    }
    byte[] deflated = Compression.isInVain(entry.name()) ? content : deflated(content);
    boolean smaller = deflated.length < content.length;
    return new Content.Ready(
        smaller ? ZipMember.DEFLATED : ZipMember.STORED,
        crc.getValue(),
        content.length,
        smaller ? deflated : content);
  }

  private static byte[] small(Source source) throws IOException {
    if (source instanceof Source.OfBytes made) {
      return made.bytes();
    }
    Path file = ((Source.OfFile) source).path();
    try (InputStream in = new FileInputStream(file.toFile())) {
      byte[] content = new byte[(int) source.size()];
      if (in.readNBytes(content, 0, content.length) != content.length || in.read() >= 0) {
        throw changed(file);
      }
      return content;
    } catch (FileNotFoundException e) {
      throw new PackException(
          Files.exists(file)
              ? "Cannot pack '" + file + "': it cannot be read. Fix its rights"
              : "Cannot pack '"
                  + file
                  + "': it vanished meanwhile. Pack again when the build is done");
    }
  }

  private static PackException changed(Path file) {
    return new PackException(
        "Cannot pack '" + file + "': it changed meanwhile. Pack again when the build is done");
  }

  private Optional<ZipMember> standing(Entry entry, byte[] content, long crc) throws IOException {
    if (earlier.isEmpty() || !(entry.source() instanceof Source.OfFile file)) {
      return Optional.empty();
    }
    Optional<ZipMember> found = earlier.get().candidate(entry.name(), content.length);
    boolean same =
        found.isPresent()
            && earlier.get().holds(found.get(), file.path(), content, content.length, crc);
    return same ? found : Optional.empty();
  }

  private byte[] deflated(byte[] content) {
    Compression compression = compression();
    byte[] deflated = compression.whole(content, content.length);
    idle.add(compression);
    return deflated;
  }

  private Compression compression() {
    Compression found = idle.poll();
    return found == null ? new Compression() : found;
  }

  /** An entry of a library keeps its compression; that it holds what it says is read once. */
  private static Content verified(Source.OfMember source) throws IOException {
    ZipMember member = source.member();
    try {
      if (member.size() > BLOCK || member.compressed() > BLOCK) {
        try (InputStream in = source.open()) {
          in.transferTo(OutputStream.nullOutputStream());
        }
        return new Content.Elsewhere(source.archive(), member);
      }
      source.archive().read(member, BLOCK);
      return new Content.Ready(
          member.method(), member.crc(), member.size(), source.archive().packed(member));
    } catch (IOException e) {
      throw new PackException(
          "Cannot pack '" + source.place() + "': " + e.getMessage() + ". Fetch the library again");
    }
  }

  private void copy(Entry entry, ZipArchive archive, ZipMember member) throws IOException {
    out.begin(entry, member.method(), member.crc(), member.compressed(), member.size());
    long at = archive.contentAt(member);
    for (long left = member.compressed(); left > 0; ) {
      int count = (int) Math.min(left, BLOCK);
      out.write(archive.raw(at, count), 0, count);
      at += count;
      left -= count;
    }
  }

  private void writeLarge(Entry entry) throws IOException {
    Source.OfFile source = (Source.OfFile) entry.source();
    try (FileChannel in = FileChannel.open(source.path())) {
      boolean deflate = !Compression.isInVain(entry.name()) && shrinks(in, source.size());
      ZipOut.Open open =
          out.beginUnknown(entry, deflate ? ZipMember.DEFLATED : ZipMember.STORED, source.size());
      CRC32 crc = new CRC32();
      long written = 0;
      Deque<Future<Block>> ahead = new ArrayDeque<>();
      for (long at = 0; at < source.size() || !ahead.isEmpty(); ) {
        while (at < source.size() && ahead.size() <= threads) {
          long from = at;
          ahead.add(begin(() -> block(in, source, from, deflate)));
          at += BLOCK;
        }
        Block block = result(ahead.remove());
        crc.update(block.bytes(), block.from(), block.length());
        byte[] data = deflate ? block.deflated() : block.bytes();
        out.write(data, 0, data.length);
        written += data.length;
      }
      out.finish(open, crc.getValue(), written);
    } catch (NoSuchFileException e) {
      throw changed(source.path());
    }
  }

  private boolean shrinks(FileChannel in, long size) throws IOException {
    byte[] first = new byte[(int) Math.min(size, BLOCK)];
    fill(in, 0, first);
    return deflated(first).length < first.length * WORTH_IT;
  }

  private Block block(FileChannel in, Source.OfFile source, long at, boolean deflate)
      throws IOException {
    int before = deflate ? (int) Math.min(at, Compression.WINDOW) : 0;
    int length = (int) Math.min(BLOCK, source.size() - at);
    byte[] bytes = new byte[before + length];
    boolean last = at + length == source.size();
    boolean longer = last && in.size() != source.size();
    if (!fill(in, at - before, bytes) || longer) {
      throw changed(source.path());
    }
    if (!deflate) {
      return new Block(bytes, 0, bytes);
    }
    Compression compression = compression();
    byte[] deflated = compression.block(bytes, before, bytes.length, last);
    idle.add(compression);
    return new Block(bytes, before, deflated);
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

  @Override
  public void close() {
    workers.shutdownNow();
    idle.forEach(Compression::close);
  }
}
