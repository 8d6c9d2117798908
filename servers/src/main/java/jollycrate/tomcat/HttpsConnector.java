package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import jollycrate.file.Digests;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.server.Keystore;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/** A connector for HTTPS that was put into a {@code server.xml}, with its keystore beside that. */
final class HttpsConnector {
  private static final String OURS = "conf/https-";
  private static final String KEYSTORE = "certificateKeystoreFile";
  private static final String PASSWORD = "certificateKeystorePasswordFile";

  private final Server server;
  private final Access access;
  private final ServerXml configuration;
  private final XmlElement connector;

  private HttpsConnector(Stock stock, ServerXml configuration, XmlElement connector) {
    this.server = stock.server();
    this.access = stock.access().with("rw-------");
    this.configuration = configuration;
    this.connector = connector;
  }

  /** The one that stands on a port; empty when that was not put there by us. */
  static Optional<HttpsConnector> on(int port, Stock stock, ServerXml configuration) {
    return configuration.connectors().stream()
        .filter(connector -> connector.port().equals(OptionalInt.of(port)))
        .map(connector -> new HttpsConnector(stock, configuration, connector.element()))
        .filter(connector -> connector.file(KEYSTORE).isPresent())
        .findFirst();
  }

  /** The files that it names. */
  List<Path> files() {
    List<Path> files = new ArrayList<>();
    file(KEYSTORE).map(server.folder()::resolve).ifPresent(files::add);
    file(PASSWORD).map(server.folder()::resolve).ifPresent(files::add);
    return files;
  }

  private Optional<String> file(String attribute) {
    return certificate()
        .map(element -> element.value(attribute, ""))
        .filter(name -> name.startsWith(OURS));
  }

  private Optional<XmlElement> certificate() {
    return connector.descendants("Certificate").stream().findFirst();
  }

  Splice removing() {
    return configuration.document().removing(connector);
  }

  /** Names another keystore. */
  List<Splice> naming(Keystore keystore) {
    XmlElement element = certificate().orElseThrow();
    XmlDocument document = configuration.document();
    return List.of(
        document.setting(element, KEYSTORE, name(keystore, ".p12")),
        document.setting(element, PASSWORD, name(keystore, ".password")));
  }

  /** Whether it names that keystore. */
  boolean names(Keystore keystore) {
    return file(KEYSTORE).filter(name(keystore, ".p12")::equals).isPresent();
  }

  private static String name(Keystore keystore, String end) {
    return OURS + Digests.brief(Digests.of(keystore.bytes())) + end;
  }

  /** What a keystore is put there as; only the server's own user may read it. */
  static List<Piece.WholeFile> files(Stock stock, Keystore keystore) {
    Access access = stock.access().with("rw-------");
    Path folder = stock.server().folder();
    return List.of(
        whole(folder.resolve(name(keystore, ".p12")), Content.of(keystore.bytes()), access),
        whole(
            folder.resolve(name(keystore, ".password")),
            Content.of(keystore.password() + "\n"),
            access));
  }

  private static Piece.WholeFile whole(Path file, Content content, Access access) {
    return new Piece.WholeFile(file, content, access, Part.OWN, PickUp.RESTART);
  }

  /** A new one behind the connector that people reach already, bound to the same address. */
  static Splice adding(
      ServerXml.Connector beside, ServerXml configuration, int port, Keystore keystore) {
    String address = beside.element().value("address", "");
    return configuration
        .document()
        .behind(
            beside.element(),
            List.of(
                "<Connector port=\""
                    + port
                    + "\""
                    + (address.isEmpty() ? "" : " address=\"" + XmlDocument.escape(address) + "\"")
                    + " protocol=\"org.apache.coyote.http11.Http11NioProtocol\"",
                "           SSLEnabled=\"true\" scheme=\"https\" secure=\"true\""
                    + " connectionTimeout=\"20000\">",
                "  <SSLHostConfig protocols=\"TLSv1.2+TLSv1.3\">",
                "    <Certificate " + KEYSTORE + "=\"" + name(keystore, ".p12") + "\"",
                "                 " + PASSWORD + "=\"" + name(keystore, ".password") + "\"",
                "                 certificateKeystoreType=\"PKCS12\"/>",
                "  </SSLHostConfig>",
                "</Connector>"));
  }
}
