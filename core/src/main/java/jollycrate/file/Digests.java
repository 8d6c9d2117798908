package jollycrate.file;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 digests, written as 64 lower-case hexadecimal digits. */
public final class Digests {
  private Digests() {}

  /** Digest of bytes in memory. */
  public static String of(byte[] bytes) {
    return hex(sha256().digest(bytes));
  }

  /** Digest of a file's content; a file that did not change meanwhile is read once. */
  public static String of(Path file) throws IOException {
    return SeenFiles.digest(file);
  }

  /** Tells that this process has just written a file, so that it need not be read. */
  public static void written(Path file, String digest) throws IOException {
    SeenFiles.written(file, digest);
  }

  /** Copies everything and returns the digest of what was copied. */
  public static String copying(InputStream in, OutputStream out) throws IOException {
    MessageDigest digest = sha256();
    byte[] buffer = new byte[1 << 16];
    for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
      digest.update(buffer, 0, read);
      out.write(buffer, 0, read);
    }
    return hex(digest.digest());
  }

  /** The first characters of a digest, enough to tell releases apart for people. */
  public static String brief(String digest) {
    return digest.substring(0, Math.min(12, digest.length()));
  }

  private static String hex(byte[] digest) {
    return HexFormat.of().formatHex(digest);
  }

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }
}
