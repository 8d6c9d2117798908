package jollycrate.hosting;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** Arguments of processes. */
public final class Arguments {
  private Arguments() {}

  /** The paths behind those arguments that begin so. */
  public static Stream<Path> paths(List<String> arguments, String beginning) {
    return arguments.stream()
        .filter(argument -> argument.startsWith(beginning))
        .map(argument -> Path.of(argument.substring(beginning.length())).normalize());
  }
}
