package jollycrate.tomcat;

/**
 * How Tomcat names a context: {@code api#v3} for {@code /api/v3}, {@code ROOT} for the root, with
 * {@code ##version} behind it.
 */
final class ContextNames {
  private ContextNames() {}

  static String baseName(String contextPath) {
    return contextPath.isEmpty() ? "ROOT" : contextPath.substring(1).replace('/', '#');
  }

  static String pathOf(String baseName) {
    int version = baseName.indexOf("##");
    String name = version < 0 ? baseName : baseName.substring(0, version);
    return name.equals("ROOT") ? "" : "/" + name.replace('#', '/');
  }
}
