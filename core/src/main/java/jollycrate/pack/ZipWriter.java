package jollycrate.pack;

import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Future;
import java.util.function.LongConsumer;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/**
 * Writes the entries of an archive in their order while several threads read and compress ahead.
 * What it holds in memory is bounded, whatever the sizes; the bytes it writes do not depend on the
 * number of threads.
 */
final class ZipWriter implements Closeable {
  private static final int BATCH = 64;
  private static final long BATCH_BYTES = 1 << 19;
  private static final long MOST_BYTES_WAITING = 16 << 20;

  /** Entries that somebody works on, several as handing over costs more than a small file. */
  private record Waiting(List<Entry> entries, long weight, Future<List<Content>> contents) {}

  private final ZipOut out;
  private final Optional<Earlier> earlier;
  private final LongConsumer progress;
  private final PackThreads threads = new PackThreads();
  private final Compressions compressions = new Compressions();
  private final EntryReader reader;
  private final Deque<Waiting> waiting = new ArrayDeque<>();
  private long bytesWaiting;

  /**
   * @param progress is told bytes of content that were written
   */
  ZipWriter(ZipOut out, Optional<Earlier> earlier, LongConsumer progress) {
    this.out = out;
    this.earlier = earlier;
    this.progress = progress;
    this.reader = new EntryReader(earlier, compressions);
  }

  /** Writes all entries and the directory. */
  void write(Iterable<Entry> entries) throws IOException {
    List<Entry> batch = new ArrayList<>();
    long weight = 0;
    for (Entry entry : entries) {
      batch.add(entry);
      weight += Math.min(entry.source().size(), EntryReader.MOST);
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
    waiting.add(new Waiting(batch, weight, threads.begin(() -> read(batch))));
    bytesWaiting += weight;
    while (bytesWaiting > MOST_BYTES_WAITING) {
      finishFirst();
    }
  }

  private List<Content> read(List<Entry> batch) throws IOException {
    List<Content> read = new ArrayList<>(batch.size());
    for (Entry entry : batch) {
      read.add(reader.read(entry));
    }
    return read;
  }

  private void finishFirst() throws IOException {
    Waiting first = waiting.remove();
    bytesWaiting -= first.weight();
    List<Content> contents = PackThreads.result(first.contents());
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
    } else if (content instanceof Content.Standing standing) {
      out.take(entry, earlier.orElseThrow().archive(), standing.member());
    } else {
      new LargeFile(entry, threads, compressions).write(out);
    }
    progress.accept(entry.source().size());
  }

  private void copy(Entry entry, ZipArchive archive, ZipMember member) throws IOException {
    out.begin(entry, member.method(), member.crc(), member.compressed(), member.size());
    long at = archive.contentAt(member);
    for (long left = member.compressed(); left > 0; ) {
      int count = (int) Math.min(left, EntryReader.MOST);
      out.write(archive.raw(at, count), 0, count);
      at += count;
      left -= count;
    }
  }

  @Override
  public void close() {
    threads.close();
    compressions.close();
  }
}
