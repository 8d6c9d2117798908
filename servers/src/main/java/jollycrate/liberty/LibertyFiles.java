package jollycrate.liberty;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.file.Shipped;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;

/** Where things stand in the folder of an instance. */
final class LibertyFiles {
  /** The name of the one server in the folder. */
  static final String NAME = "main";

  /** Caches, keys and records of transactions; the caches hold passwords. */
  static final String STATE = "state";

  static final String SERVERS = "servers";

  private static final String CONFIGURATION = "server.xml";
  private static final String BOOTSTRAP = "bootstrap.properties";

  private LibertyFiles() {}

  /** The folder of the only server of one that we made. */
  static Path main(Server server) {
    return server.folder().resolve(SERVERS).resolve(NAME);
  }

  static List<Piece> instance(Server server, Access access) {
    List<Piece> pieces = new ArrayList<>();
    Path main = main(server);
    for (String folder : List.of("logs", SERVERS)) {
      pieces.add(folder(server.folder().resolve(folder), access));
    }
    for (String folder : List.of(STATE, "tmp")) {
      pieces.add(new Piece.Folder(server.folder().resolve(folder), access.with("rwx------")));
    }
    for (Path folder :
        List.of(main, main.resolve("configDropins"), main.resolve("configDropins/overrides"))) {
      pieces.add(folder(folder, access));
    }
    for (String file : List.of(CONFIGURATION, BOOTSTRAP)) {
      pieces.add(
          new Piece.WholeFile(
              main.resolve(file),
              Content.of(Shipped.bytes(LibertyFiles.class, file)),
              access.with("rw-r-----"),
              Part.SUPPORT,
              PickUp.RESTART));
    }
    return pieces;
  }

  private static Piece folder(Path path, Access access) {
    return new Piece.Folder(path, access.with("rwxr-x---"));
  }
}
