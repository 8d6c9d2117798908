package jollycrate.server;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Launch;

/**
 * A family of servers handled alike. A kind says what, never how or when: everything but {@link
 * #recognise} and {@link #instance} is a pure function of its arguments, and nothing changes
 * anything.
 */
public interface ServerKind {
  /** How {@code servers.toml} tells it from others; empty for what an installation tells. */
  default String name() {
    return "";
  }

  /** What is true of the installation, when it is one of this kind. */
  Optional<Traits> recognise(HostFiles files, Path installation);

  /** What a new instance folder holds, folders before what stands in them. */
  List<Piece> instance(HostFiles files, Server server, Access access);

  /** What taking stock reads. */
  Reads reads(Server server);

  /** The process of the server. */
  Launch launch(Stock stock);

  /** What stands at which context path, whoever put it there. */
  List<Occupant> occupants(Stock stock);

  /** The pieces that an order needs. */
  Wanted wanted(Stock stock, Order order);

  /** Whether what is expected of a placement is so. */
  Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence);

  /**
   * Why something failed, by what was logged meanwhile.
   *
   * @param packages of the application's own classes, to find it in stack traces
   */
  Optional<Cause> explain(List<String> packages, String log);

  /**
   * Where a start stands that does not come to its end, by what the process printed of its threads;
   * empty when this kind cannot tell.
   *
   * @param packages of the application's own classes
   */
  default Optional<Cause> stalled(List<String> packages, String printed) {
    return Optional.empty();
  }

  /** Processes besides the server's own that belong to it, as its files note them. */
  default List<Identity> noted(Server server, Map<Path, byte[]> texts) {
    return List.of();
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

  /** How long its process may take to end when it is asked to. */
  default Duration endsWithin(Stock stock) {
    return Duration.ofSeconds(30);
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

  /** The log of all that the server and its applications print, oldest file first. */
  default List<Path> logs(Stock stock) {
    return List.of();
  }

  /** How fragments stand in a shared file; empty when this kind edits no such file. */
  default Optional<Splicer> splicer(Path file) {
    return Optional.empty();
  }
}
