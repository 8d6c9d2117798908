package jollycrate.file;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;

/** Files that people name and that are read whole: regular ones of a bounded size. */
public final class SmallFile {
  /** The most that is read of a text that people write by hand. */
  public static final long MOST_BYTES = 16 << 20;

  private SmallFile() {}

  /**
   * All of a file.
   *
   * @param most its longest size, in bytes
   * @throws IOException whose {@link IoReason} is why it is not read: it is no file (a device, a
   *     pipe, a folder), or too large
   */
  public static byte[] bytes(Path file, long most) throws IOException {
    if (!Files.exists(file)) {
      throw new NoSuchFileException(file.toString());
    }
    if (!Files.isRegularFile(file)) {
      throw new FileSystemException(file.toString(), null, "it is no file");
    }
    try (InputStream in = Files.newInputStream(file)) {
      byte[] bytes = in.readNBytes((int) most + 1);
      if (bytes.length > most) {
        throw new FileSystemException(
            file.toString(), null, "it is larger than " + Sizes.told(most));
      }
      return bytes;
    }
  }

  /** The same as text in UTF-8; what is none is replaced. */
  public static String text(Path file, long most) throws IOException {
    return new String(bytes(file, most), StandardCharsets.UTF_8);
  }
}
