package jollycrate.pack;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.artifact.Comparison;

/**
 * What packing made.
 *
 * @param folder the same unpacked, where a shape has that too
 * @param size in bytes
 * @param changed false when the same bytes stood there already
 * @param mainClass what {@code java -jar} starts
 * @param parts what went in, by part
 * @param heaviest the largest files inside, largest first
 * @param leftOut what did not go in, with the reason
 * @param remarks what was merged, rewritten or is missing
 * @param since against the artifact that stood there before
 */
public record Packed(
    Shape shape,
    Path file,
    Optional<Path> folder,
    long size,
    boolean changed,
    Optional<String> mainClass,
    List<Part> parts,
    List<Heavy> heaviest,
    List<LeftOut> leftOut,
    List<Remark> remarks,
    Optional<Comparison> since) {

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

  /**
   * A file inside.
   *
   * @param bytes before compression
   */
  public record Heavy(String path, long bytes) {}

  /**
   * A file or folder that stays outside.
   *
   * @param bytes that it would have added before compression
   */
  public record LeftOut(String path, String reason, long bytes) {}

  /**
   * Something to know about what went in.
   *
   * @param warning whether it may hurt
   * @param details one each, may be many
   */
  public record Remark(boolean warning, String text, List<String> details) {}
}
