package jollycrate.hosting;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** Arguments of processes. */
public final class Arguments {
  private Arguments() {}

  /** The path behind the first argument that begins so. */
  public static Optional<Path> path(List<String> arguments, String beginning) {
    return arguments.stream()
        .filter(argument -> argument.startsWith(beginning))
        .map(argument -> Path.of(argument.substring(beginning.length())))
        .findFirst();
  }
}
