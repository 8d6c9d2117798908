package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.host.Question;

/**
 * A family of servers handled alike. A kind says what, never how or when: everything that is not
 * handed the files of its host is a pure function of its arguments, and nothing changes anything.
 */
public interface ServerKind {
  /** How {@code servers.toml} tells it from others; empty for what an installation tells. */
  default String name() {
    return "";
  }

  /** What is true of the installation, when it is one of this kind. */
  Optional<Traits> recognise(HostFiles files, Path installation);

  /**
   * Label of an installation that is of this family, in a version that this kind does not support,
   * like {@code Jetty 12.0.16}.
   */
  default Optional<String> unsupported(HostFiles files, Path installation) {
    return Optional.empty();
  }

  /** What is true of each line of versions that this kind handles, whose name is its label. */
  List<Traits> lines();

  /** What {@link #recognise} is going to read. */
  default Glance recognising(Path installation) {
    return new Glance();
  }

  /** What a new instance folder holds, folders before what stands in them. */
  List<Piece> instance(HostFiles files, Server server, Access access);

  /**
   * The folders of the instances that stand in an installation; itself alone where that is all of
   * its only one.
   */
  default List<Path> instances(HostFiles files, Path installation) {
    return List.of(installation);
  }

  /**
   * What the files of a server that people have say; empty where none can be adopted, for a reason
   * that {@link #contradictions} tell.
   */
  default Optional<SelfDescription> describe(HostFiles files, Stock stock) {
    return Optional.empty();
  }

  /** What a running server's process is asked about the applications on it; nothing unless told. */
  default List<Question> questions() {
    return List.of();
  }

  /**
   * Paths of pages on its listener for HTTP that tell of the applications on it; none unless told.
   */
  default List<String> pages() {
    return List.of();
  }

  /** What its answers tell of each application. */
  default List<Inside> inside(Stock stock, Answers answers) {
    return List.of();
  }

  /** Where a server's own configuration says something else than its description. */
  default List<Wanted.Refused> contradictions(Stock stock) {
    return List.of();
  }

  /** Whom a server itself knows; nobody where it keeps none. */
  default List<ServerUser> users(HostFiles files, Stock stock) {
    return List.of();
  }

  /** What has to be changed of a server itself; refused by a kind that cannot. */
  default Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    return Overhaul.refused(wish.refused(stock.server().name()));
  }

  /** Files that taking stock reads whole, when they stand there. */
  List<Path> reads(Server server);

  /** Files that it reads besides, whatever they are called. */
  default List<Among> readsAmong(Server server) {
    return List.of();
  }

  /**
   * Folders whose children taking stock lists.
   *
   * @param texts the files that were read
   */
  List<Path> lists(Server server, Map<Path, byte[]> texts);

  /**
   * A folder that belongs to whom the server runs as, so that what we write there is his too.
   *
   * @param texts the files that were read
   */
  default Path owned(Server server, Map<Path, byte[]> texts) {
    return server.folder();
  }

  /** What stands at which context path, whoever put it there. */
  List<Occupant> occupants(Stock stock);

  /** The pieces that an order needs. */
  Wanted wanted(Stock stock, Order order);

  /** Whether what is expected of a placement is so. */
  Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence);

  /**
   * Values in a file on one of its servers that people must not see, whoever wrote it and however
   * long ago, each with what is shown in its place: passwords and secret entries in files of ours,
   * hashes of users.
   */
  default Map<String, String> secrets(Path file, byte[] text) {
    return Map.of();
  }

  /** What its processes are. */
  KindProcesses processes();

  /** What its logs tell. */
  KindLogs logs();

  /** How fragments stand in a shared file; empty when this kind edits no such file. */
  default Optional<Splicer> splicer(Path file) {
    return Optional.empty();
  }
}
