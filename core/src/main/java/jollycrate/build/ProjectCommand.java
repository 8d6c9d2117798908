package jollycrate.build;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import jollycrate.host.Host;
import jollycrate.host.Ran;

/**
 * Runs commands of a project in its folder.
 *
 * @param folder of {@code jolly.toml}
 * @param log where everything is kept that a command printed which failed
 * @param doing is told what runs
 */
record ProjectCommand(Host host, Path folder, Path log, Consumer<String> doing) {
  private static final Duration LIMIT = Duration.ofHours(1);

  /**
   * Runs one.
   *
   * @param cannot what cannot be done when it fails
   * @throws BuildException when it fails, with the errors it printed before all else
   */
  void run(List<String> command, String cannot) {
    doing.accept("'" + String.join(" ", command) + "'");
    Ran ran = host.processes().run(found(command), folder, System.getenv(), "", LIMIT);
    if (ran.exit() != 0) {
      String reason = ran.exit() < 0 ? "ran longer than an hour" : "ended with " + ran.exit();
      BuildOutput output = BuildOutput.of(ran.output() + ran.errors());
      throw new BuildException(
          cannot
              + " in '"
              + folder
              + "': '"
              + String.join(" ", command)
              + "' "
              + reason
              + ". All that it printed stands in "
              + kept(output),
          output.told());
    }
  }

  private Path kept(BuildOutput output) {
    try {
      Files.createDirectories(log.getParent());
      return Files.writeString(log, output.text());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A command that stands in the project is found from its folder. */
  private List<String> found(List<String> command) {
    List<String> found = new ArrayList<>(command);
    Path own = folder.resolve(command.get(0));
    if (command.get(0).contains("/") && Files.isExecutable(own)) {
      found.set(0, own.normalize().toString());
    }
    return found;
  }
}
