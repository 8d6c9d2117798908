package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.host.HostFiles;

/** What the logs of a kind of server tell. */
public interface KindLogs {
  /** The log of all that the server and its applications print, oldest file first. */
  List<Path> all(Stock stock);

  /** Whether causes may stand in a file beside the server's own log, by the name of that file. */
  default boolean tells(String file) {
    return false;
  }

  /**
   * Why something failed, by what was logged meanwhile.
   *
   * @param packages of the application's own classes, to find it in stack traces
   */
  Optional<Cause> explain(List<String> packages, String log);

  /**
   * Whether a running server has read a file of its own anew.
   *
   * @param log since the file was put there
   */
  default boolean tellsOfReading(Path file, String log) {
    return false;
  }

  /**
   * Where a start stands that does not come to its end, by what the process printed of its threads;
   * empty when this kind cannot tell.
   *
   * @param packages of the application's own classes
   */
  default Optional<Cause> stalled(List<String> packages, String printed) {
    return Optional.empty();
  }

  /**
   * Where a placement's own output begins since it was started last; empty when it goes to the
   * server's log.
   *
   * @param log of the server
   */
  default Optional<LogPlace> output(
      HostFiles files, Server server, Placement placement, String log) {
    return Optional.empty();
  }

  /**
   * Why an application does not run although its server does, as far as that can be told without
   * asking it; empty when nothing speaks against it.
   *
   * @param log of the server
   */
  default Optional<Cause> down(Server server, Placement placement, String log) {
    return Optional.empty();
  }

  /**
   * What else should be known of an application that runs.
   *
   * @param log of the server
   */
  default List<Cause> remarks(Server server, Placement placement, String log) {
    return List.of();
  }
}
