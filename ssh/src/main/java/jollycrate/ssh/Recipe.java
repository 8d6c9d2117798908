package jollycrate.ssh;

import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;

/**
 * How an archive is made from another one like it: from ranges of that and from bytes of its own.
 * Entries count as the same when the archives' directories say the same of them; whoever makes it
 * so has to compare its digest.
 *
 * @param file the new one, beside the tool
 * @param other the other one, where it is to be made
 * @param parts in their order
 */
record Recipe(Path file, Path other, List<Part> parts) {
  private static final int MOST_PARTS = 2000;
  private static final int LEAST_COPIED = 512;
  private static final long OWN = -1;

  /**
   * A part of the new archive.
   *
   * @param at where it stands there
   * @param there where the same stands in the other one; below zero: nowhere
   */
  record Part(long at, long length, long there) {
    boolean isOwn() {
      return there < 0;
    }

    private boolean goesOn(Part before) {
      return isOwn() == before.isOwn() && (isOwn() || before.there + before.length == there);
    }
  }

  /**
   * Of an archive and one like it.
   *
   * @throws IOException when one of them is no archive
   */
  static Recipe of(Path file, Path place, SeekableByteChannel other) throws IOException {
    try (ZipFile fresh = ZipFile.builder().setPath(file).get();
        ZipFile old =
            ZipFile.builder().setSeekableByteChannel(other).setIgnoreLocalFileHeader(true).get()) {
      Map<String, ZipArchiveEntry> known = new HashMap<>();
      inOrder(old).forEach(entry -> known.put(told(entry), entry));
      List<ZipArchiveEntry> entries = inOrder(fresh);
      List<Part> parts = new ArrayList<>();
      long end = 0;
      for (int i = 0; i < entries.size(); i++) {
        ZipArchiveEntry entry = entries.get(i);
        boolean last = i == entries.size() - 1;
        long next =
            last
                ? entry.getDataOffset() + entry.getCompressedSize()
                : entries.get(i + 1).getLocalHeaderOffset();
        add(parts, new Part(end, entry.getLocalHeaderOffset() - end, OWN));
        parts(entry, next, Optional.ofNullable(known.get(told(entry))))
            .forEach(part -> add(parts, part));
        end = next;
      }
      add(parts, new Part(end, Files.size(file) - end, OWN));
      return new Recipe(file, place, List.copyOf(parts));
    }
  }

  /** Of an entry with another time only the header is another. */
  private static List<Part> parts(
      ZipArchiveEntry entry, long next, Optional<ZipArchiveEntry> other) {
    long at = entry.getLocalHeaderOffset();
    long there = other.map(ZipArchiveEntry::getLocalHeaderOffset).orElse(OWN);
    boolean sameTime = other.filter(old -> old.getTime() == entry.getTime()).isPresent();
    if (other.isEmpty() || sameTime) {
      return List.of(new Part(at, next - at, there));
    }
    long header = entry.getDataOffset() - at;
    return List.of(
        new Part(at, header, OWN), new Part(at + header, next - at - header, there + header));
  }

  private static List<ZipArchiveEntry> inOrder(ZipFile zip) {
    return Collections.list(zip.getEntriesInPhysicalOrder());
  }

  /** What the directory says of an entry, but for its place and time. */
  private static String told(ZipArchiveEntry entry) {
    return Stream.of(
            entry.getName(),
            entry.getCrc(),
            entry.getCompressedSize(),
            entry.getSize(),
            entry.getMethod(),
            entry.getRawFlag())
        .map(String::valueOf)
        .reduce("", (one, other) -> one + "\0" + other);
  }

  /** What is short is sent sooner than it is found there. */
  private static void add(List<Part> parts, Part found) {
    Optional<Part> before =
        Optional.of(parts).filter(all -> !all.isEmpty()).map(all -> all.get(all.size() - 1));
    boolean goesOn = before.filter(found::goesOn).isPresent();
    Part part =
        goesOn || found.length >= LEAST_COPIED ? found : new Part(found.at, found.length, OWN);
    if (part.length == 0) {
      return;
    }
    if (before.filter(part::goesOn).isPresent()) {
      Part first = parts.remove(parts.size() - 1);
      parts.add(new Part(first.at, first.length + part.length, first.there));
    } else {
      parts.add(part);
    }
  }

  /** Number of bytes that have to be sent. */
  long own() {
    return parts.stream().filter(Part::isOwn).mapToLong(Part::length).sum();
  }

  /** Whether it is worth to be followed. */
  boolean isWorthIt() {
    long all = parts.stream().mapToLong(Part::length).sum();
    return own() < all / 2 && parts.size() <= MOST_PARTS;
  }

  /** Prints the new archive, with the functions {@code copy} and {@code take}. */
  String script() {
    StringBuilder script = new StringBuilder();
    for (Part part : parts) {
      script.append(
          part.isOwn()
              ? "take " + part.length + " || exit 1\n"
              : "copy " + part.there + " " + part.length + " || exit 1\n");
    }
    return script.toString();
  }

  /** The bytes that have to be sent, one after the other. */
  InputStream bytes() {
    List<InputStream> streams =
        parts.stream().filter(Part::isOwn).<InputStream>map(part -> new Lazy(file, part)).toList();
    return new SequenceInputStream(Collections.enumeration(streams));
  }

  /** A part of a file that is opened when it is read. */
  private static final class Lazy extends FilterInputStream {
    private final Path file;
    private final Part part;
    private long left;

    Lazy(Path file, Part part) {
      super(new ByteArrayInputStream(new byte[0]));
      this.file = file;
      this.part = part;
      this.left = part.length;
    }

    private void open() throws IOException {
      if (left == part.length) {
        in = Files.newInputStream(file);
        in.skipNBytes(part.at);
      }
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
      if (left == 0) {
        return -1;
      }
      open();
      int count = in.read(into, offset, (int) Math.min(length, left));
      left -= Math.max(0, count);
      return count;
    }

    @Override
    public void close() {
      try {
        super.close();
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }
}
