package jollycrate.tomcat;

import java.util.Optional;
import jollycrate.hosting.ElementSplicer;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * Puts virtual hosts into an {@code Engine} of {@code conf/server.xml}. A key is the name of the
 * engine, a slash and the name of the host.
 */
final class HostSplicer extends ElementSplicer {
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
  protected Optional<XmlElement> around(XmlDocument document, String key) {
    return named(document, "Engine", key.substring(0, key.lastIndexOf('/')));
  }

  @Override
  protected String element(String key) {
    return HOST;
  }

  @Override
  protected String name(String key) {
    return key.substring(key.lastIndexOf('/') + 1);
  }
}
