package jollycrate.jetty;

import java.util.ArrayList;
import java.util.List;
import jollycrate.file.Shipped;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;

/** The folder of a new instance. */
final class JettyInstance {
  private static final List<String> FOLDERS =
      List.of(
          "start.d",
          "etc",
          "environments",
          "lib",
          "logs",
          "resources",
          "tmp",
          "webapps",
          Environment.JAVAX_FOLDER,
          "work");
  private static final List<String> FILES =
      List.of(
          "start.d/core.ini",
          "start.d/ee10.ini",
          "start.d/ee8.ini",
          "etc/jolly.xml",
          "etc/jolly-admin.xml",
          "etc/jolly-javax.xml");

  private JettyInstance() {}

  static List<Piece> pieces(Server server, Access access) {
    List<Piece> pieces = new ArrayList<>();
    for (String folder : FOLDERS) {
      pieces.add(new Piece.Folder(server.folder().resolve(folder), access.with("rwxr-x---")));
    }
    for (String file : FILES) {
      pieces.add(
          new Piece.WholeFile(
              server.folder().resolve(file),
              Content.of(Shipped.bytes(JettyInstance.class, file.substring(file.indexOf('/') + 1))),
              access.with("rw-r-----"),
              Part.SUPPORT,
              PickUp.RESTART));
    }
    return pieces;
  }
}
