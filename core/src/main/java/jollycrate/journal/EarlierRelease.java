package jollycrate.journal;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Application;

/**
 * A release as it was delivered, so that it can be delivered again.
 *
 * @param delivery number of its delivery
 * @param restores number of the delivery whose release came back with it; 0 for a new one
 * @param described the application as it was described for that server; it holds no secret
 * @param description SHA-256 of the resolved description
 * @param revision of its source, as far as it is known
 * @param files that it was made of
 */
public record EarlierRelease(
    int delivery,
    int restores,
    Application described,
    String description,
    String revision,
    boolean onAdminPort,
    List<Original> files) {

  /**
   * A file that a delivery takes from.
   *
   * @param path where it stood then, beside the tool
   * @param digest SHA-256 of its content
   * @param size in bytes
   */
  public record Original(Path path, String digest, long size) {}

  /** The same under a number. */
  public EarlierRelease numbered(int number) {
    return new EarlierRelease(
        number, restores, described, description, revision, onAdminPort, files);
  }

  /** Name of the application. */
  @JsonIgnore
  public String application() {
    return described.name();
  }

  /** Version of the application; may be empty. */
  @JsonIgnore
  public String version() {
    return described.version().orElse("");
  }

  /** Number of the delivery in which this release was new. */
  @JsonIgnore
  public int origin() {
    return restores > 0 ? restores : delivery;
  }

  /** Whether that digest is of a file that it was made of. */
  public boolean holds(String digest) {
    return files.stream().anyMatch(file -> file.digest().equals(digest));
  }

  /** The file that stood there then. */
  public Optional<Original> file(Path path) {
    return files.stream().filter(file -> file.path().equals(path)).findFirst();
  }

  /** Whether it is the same release, described in the same way. */
  public boolean isAlike(EarlierRelease other) {
    return description.equals(other.description)
        && files.stream()
            .map(Original::digest)
            .toList()
            .equals(other.files.stream().map(Original::digest).toList());
  }
}
