package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.server.PickUp;
import jollycrate.server.Server;
import jollycrate.server.Splicer;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * {@code configuration/standalone.xml}, which a WildFly reads when it starts, and which
 * applications share: drivers and virtual hosts stand there. A key is what it is, a slash, and its
 * name.
 */
final class Configuration implements Splicer {
  private static final String DRIVER = "driver/";
  private static final String HOST = "host/";
  private static final String NAME = "name";

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
  public PickUp pickUp() {
    return PickUp.RESTART;
  }

  @Override
  public Optional<String> find(String text, String key) {
    try {
      return element(XmlDocument.parse(key, text), key)
          .map(found -> text.substring(found.start(), found.end()));
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  @Override
  public String insert(String text, String key, String fragment) {
    XmlDocument document = XmlDocument.parse(key, text);
    Splice splice =
        element(document, key)
            .map(there -> new Splice(there.start(), there.end(), fragment))
            .orElseGet(
                () -> document.appending(around(document, key).orElseThrow(), List.of(fragment)));
    return Splice.apply(text, List.of(splice));
  }

  @Override
  public String remove(String text, String key) {
    XmlDocument document = XmlDocument.parse(key, text);
    return element(document, key)
        .map(there -> Splice.apply(text, List.of(document.removing(there))))
        .orElse(text);
  }

  private static Optional<XmlElement> around(XmlDocument document, String key) {
    return key.startsWith(DRIVER)
        ? document.root().descendants("drivers").stream().findFirst()
        : named(document, "server", NewConfiguration.MAIN_SERVER);
  }

  private static Optional<XmlElement> element(XmlDocument document, String key) {
    String kind = key.substring(0, key.indexOf('/'));
    String name = key.substring(key.indexOf('/') + 1);
    return around(document, key).stream()
        .flatMap(around -> around.children(kind).stream())
        .filter(child -> child.value(NAME, "").equals(name))
        .findFirst();
  }

  private static Optional<XmlElement> named(XmlDocument document, String element, String name) {
    return document.root().descendants(element).stream()
        .filter(found -> found.value(NAME, "").equals(name))
        .findFirst();
  }
}
