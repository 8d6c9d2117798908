package jollycrate.pack;

import java.io.FileInputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.zip.CRC32;
import jollycrate.artifact.ZipMember;
import jollycrate.file.IoReason;

/** Reads and compresses entries one by one; for any number of threads. */
final class EntryReader {
  /** Larger contents are not held in memory. */
  static final int MOST = 1 << 20;

  private final Optional<Earlier> earlier;
  private final Compressions compressions;

  EntryReader(Optional<Earlier> earlier, Compressions compressions) {
    this.earlier = earlier;
    this.compressions = compressions;
  }

  Content read(Entry entry) throws IOException {
    if (entry.source() instanceof Source.OfMember member) {
      return verified(member);
    }
    if (entry.source() instanceof Source.OfBytes made) {
      return content(entry, made.bytes(), Optional.empty());
    }
    Source.OfFile file = (Source.OfFile) entry.source();
    Optional<ZipMember> unchanged =
        earlier.isPresent() && file.stamp().isPresent()
            ? earlier.get().unchanged(entry.name(), file.stamp().get())
            : Optional.empty();
    if (unchanged.isPresent()) {
      return new Content.Standing(unchanged.get());
    }
    return file.size() > MOST
        ? new Content.Large()
        : content(entry, small(file.path(), (int) file.size()), Optional.of(file.path()));
  }

  private Content content(Entry entry, byte[] content, Optional<Path> file) throws IOException {
    CRC32 crc = new CRC32();
    crc.update(content);
    Optional<ZipMember> stands =
        earlier.isPresent() && file.isPresent()
            ? earlier.get().holding(entry.name(), file.get(), content, crc.getValue())
            : Optional.empty();
    if (stands.isPresent()) {
      byte[] packed = earlier.orElseThrow().archive().packed(stands.get());
      return new Content.Ready(ZipMember.DEFLATED, crc.getValue(), content.length, packed);
    }
    byte[] deflated =
        Compression.isInVain(entry.name())
            ? content
            : compressions.with(compression -> compression.whole(content, content.length));
    return deflated.length < content.length
        ? new Content.Ready(ZipMember.DEFLATED, crc.getValue(), content.length, deflated)
        : new Content.Ready(ZipMember.STORED, crc.getValue(), content.length, content);
  }

  private static byte[] small(Path file, int size) throws IOException {
    try (InputStream in = new FileInputStream(file.toFile())) {
      byte[] content = new byte[size];
      if (in.readNBytes(content, 0, size) != size || in.read() >= 0) {
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

  static PackException changed(Path file) {
    return new PackException(
        "Cannot pack '" + file + "': it changed meanwhile. Pack again when the build is done");
  }

  /** An entry of a library keeps its compression; that it holds what it says is read once. */
  private static Content verified(Source.OfMember source) throws IOException {
    ZipMember member = source.member();
    try {
      if (member.size() > MOST || member.compressed() > MOST) {
        try (InputStream in = source.open()) {
          in.transferTo(OutputStream.nullOutputStream());
        }
        return new Content.Elsewhere(source.archive(), member);
      }
      source.archive().read(member, MOST);
      return new Content.Ready(
          member.method(), member.crc(), member.size(), source.archive().packed(member));
    } catch (IOException e) {
      throw new PackException(
          "Cannot pack '" + source.place() + "': " + IoReason.of(e) + ". Fetch the library again");
    }
  }
}
