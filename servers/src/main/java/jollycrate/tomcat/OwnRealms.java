package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * Realms that applications bring along and that read the users of their server as plain text: what
 * is stored otherwise from now on lets nobody in there.
 */
final class OwnRealms {
  private final HostFiles files;
  private final Server server;
  private final Standing standing;

  /**
   * One of them.
   *
   * @param where file and line
   * @param ours whether we delivered it: the next delivery takes the server's Realm as it is then
   */
  record OwnRealm(String where, boolean ours) {}

  OwnRealms(HostFiles files, Server server, Standing standing) {
    this.files = files;
    this.server = server;
    this.standing = standing;
  }

  /** All that stand there. */
  List<OwnRealm> plain(ServerXml configuration) {
    return configuration.listeners().stream()
        .flatMap(this::descriptors)
        .distinct()
        .flatMap(this::plainIn)
        .toList();
  }

  private Stream<Path> descriptors(Listener listener) {
    return Stream.concat(
        files.list(listener.descriptors()).stream()
            .filter(file -> file.toString().endsWith(".xml")),
        files.list(listener.applications()).stream()
            .map(folder -> folder.resolve("META-INF/context.xml")));
  }

  private Stream<OwnRealm> plainIn(Path file) {
    byte[] bytes = files.read(file, 0, XmlDocument.MOST_BYTES);
    if (bytes.length == 0) {
      return Stream.empty();
    }
    try {
      XmlDocument document = XmlDocument.parse(server.shown(file), bytes);
      return document.root().descendants("Realm").stream()
          .filter(OwnRealms::isPlain)
          .map(
              realm ->
                  new OwnRealm(
                      document.name() + ":" + document.lineOf(realm.start()), isOurs(file)));
    } catch (XmlException broken) {
      return Stream.empty();
    }
  }

  private static boolean isPlain(XmlElement realm) {
    String type = realm.value("className", "");
    boolean ofServer =
        type.endsWith(".UserDatabaseRealm")
            || type.endsWith(".MemoryRealm") && realm.attribute("pathname").isEmpty();
    return ofServer && realm.child("CredentialHandler").isEmpty();
  }

  private boolean isOurs(Path file) {
    return file.startsWith(server.folder())
        && standing.pieces().containsKey(server.folder().relativize(file).toString());
  }
}
