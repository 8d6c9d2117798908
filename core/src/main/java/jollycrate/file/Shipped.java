package jollycrate.file;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;

/** Small files of ours that ship among our classes. */
public final class Shipped {
  private Shipped() {}

  /**
   * What stands in one.
   *
   * @param name seen from the class's package; from the root, with a slash in front
   */
  public static byte[] bytes(Class<?> beside, String name) {
    try (InputStream in = beside.getResourceAsStream(name)) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The same of a text in UTF-8. */
  public static String text(Class<?> beside, String name) {
    return new String(bytes(beside, name), StandardCharsets.UTF_8);
  }
}
