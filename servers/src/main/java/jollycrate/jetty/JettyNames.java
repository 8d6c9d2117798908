package jollycrate.jetty;

import jollycrate.server.Placement;

/** How files of applications are called in the folders that a Jetty looks at. */
final class JettyNames {
  private static final String ROOT = "root";

  private JettyNames() {}

  /** What a descriptor of ours is called, without its ending; one for each place. */
  static String baseName(String listener, String contextPath) {
    String path = contextPath.isEmpty() ? ROOT : contextPath.substring(1).replace('/', '#');
    return listener.equals(Placement.MAIN) ? path : path + "@" + listener;
  }

  /** Where Jetty serves what does not say it itself. */
  static String pathOf(String baseName) {
    return baseName.equalsIgnoreCase(ROOT) ? "" : "/" + baseName;
  }
}
