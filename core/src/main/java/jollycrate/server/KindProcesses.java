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

  /**
   * Whether a process is a server of this kind, whoever started it.
   *
   * @param arguments of that process, the program itself first
   */
  boolean isOne(List<String> arguments);

  /**
   * The folder of the server that such a process is; a relative one is seen from where it works.
   *
   * @param arguments of that process
   */
  Optional<Path> folder(List<String> arguments);

  /**
   * The installation that such a process runs from, where its arguments tell.
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
