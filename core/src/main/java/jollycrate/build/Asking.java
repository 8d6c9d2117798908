package jollycrate.build;

import java.nio.file.Path;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import jollycrate.maven.Repositories;

/**
 * How builds and repositories are asked.
 *
 * @param doing is told what runs
 * @param stopped whether somebody wants it to stop
 */
public record Asking(Consumer<String> doing, BooleanSupplier stopped) {

  /** The repositories of a folder. */
  public Repositories repositories(Path folder) {
    return Repositories.of(folder, doing, stopped);
  }
}
