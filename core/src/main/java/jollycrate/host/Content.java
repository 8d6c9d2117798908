package jollycrate.host;

import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.LongConsumer;
import jollycrate.artifact.DerivedArchive;
import jollycrate.file.Digests;

/** Bytes to be put on a host, from memory or from a file beside the tool. */
public final class Content {
  /** Opens the bytes for one reading. */
  @FunctionalInterface
  private interface Source {
    InputStream open() throws IOException;
  }

  private final Source source;
  private final Optional<Path> file;
  private final String digest;
  private final long size;

  private Content(Source source, Optional<Path> file, String digest, long size) {
    this.source = source;
    this.file = file;
    this.digest = digest;
    this.size = size;
  }

  /** Bytes in memory. */
  public static Content of(byte[] bytes) {
    byte[] copy = bytes.clone();
    return new Content(
        () -> new ByteArrayInputStream(copy), Optional.empty(), Digests.of(copy), copy.length);
  }

  /** Text in UTF-8. */
  public static Content of(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8));
  }

  /** A file whose digest is known already. */
  public static Content of(Path file, String digest, long size) {
    return new Content(() -> Files.newInputStream(file), Optional.of(file), digest, size);
  }

  /** A file beside the tool. */
  public static Content of(Path file) {
    try {
      return of(file, Digests.of(file), Files.size(file));
    } catch (IOException e) {
      throw HostException.cannot("read", file, e);
    }
  }

  /**
   * An archive with entries put in, whose digest is told by reading it once.
   *
   * @throws HostException it cannot be read
   */
  public static Content of(DerivedArchive archive) {
    try (InputStream in = archive.open()) {
      String digest = Digests.copying(in, OutputStream.nullOutputStream());
      return new Content(archive::open, Optional.empty(), digest, archive.size());
    } catch (IOException e) {
      throw new HostException("Cannot read what is to be put: " + e.getMessage());
    }
  }

  /**
   * The same, telling how much of it was read.
   *
   * @param read hears the number of bytes so far
   */
  public Content watched(LongConsumer read) {
    return new Content(() -> new Watched(source.open(), read), file, digest, size);
  }

  private static final class Watched extends FilterInputStream {
    private final LongConsumer read;
    private long count;

    Watched(InputStream in, LongConsumer read) {
      super(in);
      this.read = read;
    }

    @Override
    public int read() throws IOException {
      int next = super.read();
      count += next < 0 ? 0 : 1;
      return next;
    }

    @Override
    public long skip(long most) throws IOException {
      long skipped = super.skip(most);
      count += skipped;
      return skipped;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
      int next = super.read(into, offset, length);
      count += Math.max(0, next);
      read.accept(count);
      return next;
    }
  }

  /** The file beside the tool in which they stand; empty for bytes in memory. */
  public Optional<Path> file() {
    return file;
  }

  /** Opens the bytes; the caller closes. */
  public InputStream open() throws IOException {
    return source.open();
  }

  /**
   * The bytes as text; empty when they are none in UTF-8.
   *
   * @param most bytes; longer ones are no text either
   */
  public Optional<String> text(long most) {
    return bytes(most).flatMap(Content::text);
  }

  /** Bytes as text; empty when they are none in UTF-8. */
  public static Optional<String> text(byte[] bytes) {
    String text = new String(bytes, StandardCharsets.UTF_8);
    boolean same = Arrays.equals(bytes, text.getBytes(StandardCharsets.UTF_8));
    return same && text.indexOf('\0') < 0 ? Optional.of(text) : Optional.empty();
  }

  /** The bytes; empty when they are more than so many. */
  public Optional<byte[]> bytes(long most) {
    if (size > most) {
      return Optional.empty();
    }
    try (InputStream in = open()) {
      return Optional.of(in.readAllBytes());
    } catch (IOException e) {
      throw new HostException("Cannot read what is to be put: " + e.getMessage());
    }
  }

  /** SHA-256 of the bytes. */
  public String digest() {
    return digest;
  }

  /** Number of bytes. */
  public long size() {
    return size;
  }
}
