package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.hosting.ElementSplicer;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * {@code configuration/standalone.xml}, which a WildFly reads when it starts, and which
 * applications share: drivers and virtual hosts stand there. A key is what it is, a slash, and its
 * name.
 */
final class Configuration extends ElementSplicer {
  private static final String DRIVER = "driver/";
  private static final String HOST = "host/";

  static Path file(Server server) {
    return server.folder().resolve("configuration/standalone.xml");
  }

  static String driverKey(String name) {
    return DRIVER + name;
  }

  static String hostKey(String name) {
    return HOST + name;
  }

  static String driver(String name, String module, String driverClass) {
    return "<driver name=\""
        + XmlDocument.escape(name)
        + "\" module=\""
        + XmlDocument.escape(module)
        + "\"><driver-class>"
        + XmlDocument.escape(driverClass)
        + "</driver-class></driver>";
  }

  static String host(String name) {
    String escaped = XmlDocument.escape(name);
    return "<host name=\"" + escaped + "\" alias=\"" + escaped + "\"/>";
  }

  @Override
  protected Optional<XmlElement> around(XmlDocument document, String key) {
    return key.startsWith(DRIVER)
        ? document.root().descendants("drivers").stream().findFirst()
        : named(document, "server", NewConfiguration.MAIN_SERVER);
  }

  @Override
  protected String element(String key) {
    return key.substring(0, key.indexOf('/'));
  }

  @Override
  protected String name(String key) {
    return key.substring(key.indexOf('/') + 1);
  }
}
