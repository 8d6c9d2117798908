package jollycrate.glassfish;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.file.Shipped;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.hosting.ArchivesIn;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;

/** Where things stand in the folder of an instance. */
final class GlassfishFiles {
  /** The root that the server thinks is its own: it writes there, and we do not. */
  static final String STATE = "state";

  static final String CONFIGURATION = "configuration";
  static final String DEPLOYMENTS = "deployments";
  static final String LIBRARIES = "lib";

  /** Where it notes what it deployed, for the next look. */
  static final String NOTED = ".autodeploystatus";

  private static final String LOGGING = "logging.properties";
  private static final String SHIPPED = "glassfish/domains/domain1/config";

  private GlassfishFiles() {}

  static Path domain(Server server) {
    return configuration(server).resolve("domain.xml");
  }

  static Path users(Server server) {
    return configuration(server).resolve("users");
  }

  static Path logging(Server server) {
    return configuration(server).resolve(LOGGING);
  }

  static Path start(Server server) {
    return configuration(server).resolve("start.jar");
  }

  private static Path configuration(Server server) {
    return server.folder().resolve(CONFIGURATION);
  }

  /** What it deploys. */
  static ArchivesIn archives(Server server) {
    return new ArchivesIn(server.folder().resolve(DEPLOYMENTS), "");
  }

  static Path libraries(Server server) {
    return server.folder().resolve(LIBRARIES);
  }

  static Path shipped(Server server) {
    return server.installation().resolve(SHIPPED);
  }

  static List<Piece> instance(HostFiles files, Server server, Access access, Path start) {
    List<Piece> pieces = new ArrayList<>();
    for (String folder : List.of(CONFIGURATION, DEPLOYMENTS, LIBRARIES, "logs")) {
      pieces.add(folder(server.folder().resolve(folder), access.with("rwxr-x---")));
    }
    pieces.add(folder(archives(server).folder().resolve(NOTED), access.with("rwxr-x---")));
    for (String folder : List.of(STATE, "tmp")) {
      pieces.add(folder(server.folder().resolve(folder), access.with("rwx------")));
    }
    byte[] domain = files.whole(shipped(server).resolve("domain.xml"), XmlDocument.MOST_BYTES);
    pieces.add(file(domain(server), Content.of(NewDomain.of(domain)), access));
    pieces.add(
        file(logging(server), Content.of(Shipped.bytes(GlassfishFiles.class, LOGGING)), access));
    pieces.add(file(start(server), Content.of(start), access));
    pieces.add(
        new Piece.WholeFile(
            users(server), Content.of(""), access.with("rw-------"), Part.SUPPORT, PickUp.RESTART));
    return pieces;
  }

  private static Piece folder(Path path, Access access) {
    return new Piece.Folder(path, access);
  }

  private static Piece file(Path path, Content content, Access access) {
    return new Piece.WholeFile(
        path, content, access.with("rw-r-----"), Part.SUPPORT, PickUp.RESTART);
  }
}
