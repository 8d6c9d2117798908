package jollycrate.pack;

import java.io.Closeable;
import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.Stamp;

/**
 * The artifact that is about to be replaced. What did not change is taken from it as it is
 * compressed there, provided that this Java would compress it to the same bytes.
 */
final class Earlier implements Closeable {
  private static final boolean UNIX =
      FileSystems.getDefault().supportedFileAttributeViews().contains("unix");
  private static final int SAMPLES = 8;
  private static final int LARGEST_SAMPLE = 1 << 17;

  private final ZipArchive archive;
  private final FileTime written;
  private final boolean sameCompressor;
  private final PackIndex index;

  private Earlier(Path file, ZipArchive archive, LocalDateTime time) throws IOException {
    this.archive = archive;
    this.written = Files.getLastModifiedTime(file);
    this.index = PackIndex.of(file, archive, time);
    this.sameCompressor = compressesAlike();
  }

  /** Nothing, or one that is open. */
  record Maybe(Optional<Earlier> found) implements Closeable {
    @Override
    public void close() throws IOException {
      if (found.isPresent()) {
        found.get().close();
      }
    }
  }

  /**
   * Nothing when there is none, or none that can be read.
   *
   * @param time that the entries of the new artifact are given
   */
  static Maybe at(Path file, LocalDateTime time) throws IOException {
    if (!Files.isRegularFile(file)) {
      return new Maybe(Optional.empty());
    }
    ZipArchive archive;
    try {
      archive = ZipArchive.open(file);
    } catch (IOException damaged) {
      return new Maybe(Optional.empty());
    }
    try {
      return new Maybe(Optional.of(new Earlier(file, archive, time)));
    } catch (IOException damaged) {
      archive.close();
      return new Maybe(Optional.empty());
    }
  }

  ZipArchive archive() {
    return archive;
  }

  /** The entry of that name, when it was read from a file that still has the same stamp. */
  Optional<ZipMember> unchanged(String name, Stamp stamp) {
    return sameCompressor && index.knows(name, stamp) ? archive.member(name) : Optional.empty();
  }

  /**
   * The entry of that name, when it holds a file's content compressed. Equal checksums do for a
   * file that was not touched since the archive was written; else the contents are compared.
   */
  Optional<ZipMember> holding(String name, Path file, byte[] content, long crc) throws IOException {
    Optional<ZipMember> found =
        sameCompressor
            ? archive
                .member(name)
                .filter(member -> member.method() == ZipMember.DEFLATED)
                .filter(member -> member.size() == content.length && member.crc() == crc)
            : Optional.empty();
    boolean same =
        found.isPresent()
            && (untouched(file)
                || Arrays.equals(archive.read(found.get(), content.length), content));
    return same ? found : Optional.empty();
  }

  private boolean untouched(Path file) throws IOException {
    FileTime changed =
        UNIX ? (FileTime) Files.getAttribute(file, "unix:ctime") : Files.getLastModifiedTime(file);
    return changed.compareTo(written) < 0;
  }

  private boolean compressesAlike() throws IOException {
    List<ZipMember> fit =
        archive.members().stream()
            .filter(member -> member.method() == ZipMember.DEFLATED)
            .filter(member -> member.size() <= LARGEST_SAMPLE)
            .toList();
    try (Compression compression = new Compression()) {
      for (int i = 0; i < Math.min(SAMPLES, fit.size()); i++) {
        ZipMember member = fit.get((int) ((long) i * fit.size() / SAMPLES) % fit.size());
        byte[] content = archive.read(member, LARGEST_SAMPLE);
        byte[] stands = archive.raw(archive.contentAt(member), (int) member.compressed());
        if (!Arrays.equals(stands, compression.whole(content, content.length))) {
          return false;
        }
      }
    }
    return true;
  }

  @Override
  public void close() throws IOException {
    archive.close();
  }
}
