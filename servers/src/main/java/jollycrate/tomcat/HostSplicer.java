package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import jollycrate.server.PickUp;
import jollycrate.server.Splicer;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * Puts virtual hosts into an {@code Engine} of {@code conf/server.xml}. A key is the name of the
 * engine, a slash and the name of the host.
 */
final class HostSplicer implements Splicer {
  private static final String HOST = "Host";

  /** The key of a host. */
  static String key(String engine, String host) {
    return engine + "/" + host;
  }

  /** The element that makes a host. */
  static String element(String host, String applications) {
    return "<Host name=\""
        + host
        + "\" appBase=\""
        + applications
        + "\" unpackWARs=\"true\" autoDeploy=\"true\" failCtxIfServletStartFails=\"true\"/>";
  }

  @Override
  public PickUp pickUp() {
    return PickUp.RESTART;
  }

  @Override
  public Optional<String> find(String text, String key) {
    try {
      return host(XmlDocument.parse(key, text), key)
          .map(host -> text.substring(host.start(), host.end()));
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  @Override
  public String insert(String text, String key, String fragment) {
    XmlDocument document = XmlDocument.parse(key, text);
    Splice splice =
        host(document, key)
            .map(host -> new Splice(host.start(), host.end(), fragment))
            .orElseGet(
                () -> document.appending(engine(document, key).orElseThrow(), List.of(fragment)));
    return Splice.apply(text, List.of(splice));
  }

  @Override
  public String remove(String text, String key) {
    XmlDocument document = XmlDocument.parse(key, text);
    return host(document, key)
        .map(host -> Splice.apply(text, List.of(document.removing(host))))
        .orElse(text);
  }

  private static Optional<XmlElement> engine(XmlDocument document, String key) {
    String name = key.substring(0, key.lastIndexOf('/'));
    return document.root().descendants("Engine").stream()
        .filter(engine -> engine.value("name", "").equals(name))
        .findFirst();
  }

  private static Optional<XmlElement> host(XmlDocument document, String key) {
    String name = key.substring(key.lastIndexOf('/') + 1);
    return engine(document, key).stream()
        .flatMap(engine -> engine.children(HOST).stream())
        .filter(host -> host.value("name", "").equals(name))
        .findFirst();
  }
}
