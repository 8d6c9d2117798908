package jollycrate.server;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Identity;
import jollycrate.host.Launch;

/** What the processes of a kind of server are: pure functions of their arguments. */
public interface KindProcesses {
  /** The process of the server. */
  Launch launch(Stock stock);

  /** An argument that every process of this kind has, whoever started it. */
  String mark();

  /**
   * The folder of the server that a process with the mark is.
   *
   * @param arguments of that process
   */
  Optional<Path> folder(List<String> arguments);

  /**
   * The installation that a process with the mark runs from, where its arguments tell.
   *
   * @param arguments of that process
   */
  default Optional<Path> installation(List<String> arguments) {
    return Optional.empty();
  }

  /** Processes besides the server's own that belong to it, as its files note them. */
  default List<Identity> noted(Server server, Map<Path, byte[]> texts) {
    return List.of();
  }

  /** How long its process may take to end when it is asked to. */
  default Duration endsWithin(Stock stock) {
    return Duration.ofSeconds(30);
  }
}
