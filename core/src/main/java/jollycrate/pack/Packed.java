package jollycrate.pack;

import java.nio.file.Path;
import java.util.List;

/**
 * What packing made.
 *
 * @param size in bytes
 * @param digest SHA-256 of the file
 * @param parts what went in, by part, in the order of the archive
 * @param leftOut what did not go in, with the reason
 * @param changed false when the same bytes stood there already
 */
public record Packed(
    Path file, long size, String digest, List<Part> parts, List<LeftOut> leftOut, boolean changed) {

  /** Number of files in the archive. */
  public int entries() {
    return parts.stream().mapToInt(Part::files).sum();
  }

  /**
   * Files of one origin.
   *
   * @param bytes before compression
   */
  public record Part(String name, int files, long bytes) {}

  /** A file or folder that stays outside. */
  public record LeftOut(String path, String reason) {}
}
