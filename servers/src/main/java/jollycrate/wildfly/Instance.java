package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.file.Shipped;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;

/** The folder of a new instance. */
final class Instance {
  /** Copies of what it serves, transactions, and the history of its configuration. */
  static final String STATE = "state";

  static final String DEPLOYMENTS = "deployments";

  private static final String LOGGING = "logging.properties";
  private static final List<String> FOLDERS =
      List.of("configuration", DEPLOYMENTS, "lib", "logs", "modules", NewConfiguration.USERS);

  /** What it copies there may hold passwords. */
  private static final List<String> CLOSED = List.of(STATE, "tmp");

  private Instance() {}

  static Path logging(Server server) {
    return server.folder().resolve("configuration").resolve(LOGGING);
  }

  static List<Piece> pieces(HostFiles files, Server server, Access access) {
    List<Piece> pieces = new ArrayList<>();
    for (String folder : FOLDERS) {
      pieces.add(new Piece.Folder(server.folder().resolve(folder), access.with("rwxr-x---")));
    }
    for (String folder : CLOSED) {
      pieces.add(new Piece.Folder(server.folder().resolve(folder), access.with("rwx------")));
    }
    byte[] shipped =
        files.whole(
            server.installation().resolve("standalone/configuration/standalone.xml"),
            XmlDocument.MOST_BYTES);
    pieces.add(file(Configuration.file(server), NewConfiguration.of(shipped), access));
    pieces.add(file(logging(server), Shipped.bytes(Instance.class, LOGGING), access));
    return pieces;
  }

  private static Piece file(Path path, byte[] text, Access access) {
    return new Piece.WholeFile(
        path, Content.of(text), access.with("rw-r-----"), Part.SUPPORT, PickUp.RESTART);
  }
}
