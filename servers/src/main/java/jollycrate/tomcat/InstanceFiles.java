package jollycrate.tomcat;

import java.nio.charset.StandardCharsets;
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

/** The folder of a new instance: everything that Tomcat would make by itself is there already. */
final class InstanceFiles {
  private static final List<String> FOLDERS =
      List.of(
          "conf",
          "conf/Catalina",
          "conf/Catalina/localhost",
          "conf/admin",
          "conf/admin/localhost",
          "lib",
          "logs",
          "temp",
          "webapps",
          "webapps-admin",
          "work");
  private static final List<String> FROM_INSTALLATION = List.of("web.xml", "catalina.properties");
  private static final List<String> FROM_US = List.of("logging.properties", "tomcat-users.xml");
  private static final String SERVER_XML = "server.xml";
  private static final int MOST_BYTES = 4 << 20;

  private final HostFiles files;
  private final Server server;
  private final Access access;

  InstanceFiles(HostFiles files, Server server, Access access) {
    this.files = files;
    this.server = server;
    this.access = access;
  }

  List<Piece> pieces() {
    List<Piece> pieces = new ArrayList<>();
    for (String folder : FOLDERS) {
      pieces.add(folder(folder));
    }
    Tomee tomee = new Tomee(files, server.installation());
    boolean isTomee = tomee.version().isPresent();
    Path installed = server.installation().resolve("conf");
    for (String name : FROM_INSTALLATION) {
      add(pieces, name, files.read(installed.resolve(name), 0, MOST_BYTES));
    }
    for (String name : FROM_US) {
      add(pieces, name, Shipped.bytes(InstanceFiles.class, name));
    }
    String configuration = Shipped.text(InstanceFiles.class, SERVER_XML);
    String text = isTomee ? Tomee.begun(configuration) : configuration;
    add(pieces, SERVER_XML, text.getBytes(StandardCharsets.UTF_8));
    if (isTomee) {
      pieces.add(folder("conf/conf.d"));
      tomee.settings().forEach((name, bytes) -> add(pieces, name, bytes));
    }
    return pieces;
  }

  private Piece folder(String name) {
    return new Piece.Folder(server.folder().resolve(name), access.with("rwxr-x---"));
  }

  private void add(List<Piece> pieces, String name, byte[] bytes) {
    pieces.add(
        new Piece.WholeFile(
            server.folder().resolve("conf").resolve(name),
            Content.of(bytes),
            access.with("rw-r-----"),
            Part.SUPPORT,
            PickUp.RESTART));
  }
}
