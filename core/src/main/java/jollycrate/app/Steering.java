package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * How a server that people have already is started, and where it tells what it does.
 *
 * @param log file that its output goes to, from its folder on; empty: the kind's own
 * @param start command that starts it and then ends; empty: by its unit, or our own command line
 * @param stopPort port at which a word stops it; 0: none; empty: as its own files say
 * @param unit that it runs by; its output goes to the journal of the service manager
 */
public record Steering(
    Optional<String> log, List<String> start, Optional<Integer> stopPort, Optional<Unit> unit) {
  /** As servers are that we made. */
  public static final Steering OURS =
      new Steering(Optional.empty(), List.of(), Optional.empty(), Optional.empty());

  /** The command that starts it; empty: our own command line does. */
  public List<String> starting() {
    return unit.map(its -> its.command("start")).orElse(start);
  }

  /** Whether it is started by a way of its own. */
  public boolean hasItsOwn() {
    return !starting().isEmpty();
  }

  /**
   * The program that starts it; empty without a command.
   *
   * @param folder that its path starts from; a name without one is looked for as a shell would
   */
  public Optional<String> program(Path folder) {
    return starting().stream()
        .findFirst()
        .map(word -> word.contains("/") ? folder.resolve(word).toString() : word);
  }
}
