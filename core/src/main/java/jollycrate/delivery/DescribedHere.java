package jollycrate.delivery;

import java.nio.file.Path;
import java.util.Optional;

/**
 * What is described where the tool works.
 *
 * @param file that describes an application; empty for none
 * @param application its name; empty when the file cannot be read
 */
public record DescribedHere(Optional<Path> file, Optional<String> application) {
  /** Nothing. */
  public static final DescribedHere NOTHING = new DescribedHere(Optional.empty(), Optional.empty());

  /** The file, unless it describes another application. */
  Optional<Path> of(String name) {
    return file.filter(any -> application.map(name::equals).orElse(true));
  }
}
