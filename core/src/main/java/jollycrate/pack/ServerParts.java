package jollycrate.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Tells libraries that do not belong into a WAR for a standalone server: the interfaces that the
 * container provides (Jakarta Servlet 6.0, section 10.7.2, forbids to override them) and servers
 * made to be embedded. What a library holds decides, not its name.
 */
final class ServerParts {
  private static final String SERVER = "belongs to an embedded server";

  /** Package prefixes of what a servlet container provides, with the class that proves it. */
  private static final Map<String, String> PROVIDED =
      Map.ofEntries(
          Map.entry("servlet/", "servlet/Servlet.class"),
          Map.entry("el/", "el/ELContext.class"),
          Map.entry("websocket/", "websocket/Session.class"),
          Map.entry("annotation/", "annotation/Resource.class"),
          Map.entry("security/auth/message/", "security/auth/message/AuthStatus.class"));

  private static final List<String> SERVER_PACKAGES =
      List.of(
          "org/apache/catalina/",
          "org/apache/coyote/",
          "org/apache/tomcat/",
          "org/apache/naming/",
          "org/apache/juli/",
          "org/apache/jasper/",
          "org/apache/el/",
          "org/eclipse/jetty/",
          "io/undertow/",
          "org/xnio/");

  private ServerParts() {}

  /** Why the server does not want it; empty when the application needs it itself. */
  static String reason(Library library) {
    boolean empty = library.classes().findFirst().isEmpty();
    if (empty || library.classes().anyMatch(found -> !isOfServer(found.name()))) {
      return "";
    }
    if (library.classes().anyMatch(found -> isOfEmbedded(found.name()))) {
      return SERVER;
    }
    return provided(library).map(name -> "the server provides " + name).orElse("");
  }

  private static boolean isOfEmbedded(String name) {
    return SERVER_PACKAGES.stream().anyMatch(name::startsWith);
  }

  private static boolean isOfServer(String name) {
    return isOfEmbedded(name)
        || PROVIDED.keySet().stream()
            .anyMatch(p -> name.startsWith("jakarta/" + p) || name.startsWith("javax/" + p));
  }

  private static Optional<String> provided(Library library) {
    List<String> names = new ArrayList<>();
    for (Map.Entry<String, String> part : PROVIDED.entrySet()) {
      for (String root : List.of("jakarta/", "javax/")) {
        if (library.archive().member(root + part.getValue()).isPresent()) {
          names.add((root + part.getKey().replaceFirst("/$", "")).replace('/', '.'));
        }
      }
    }
    return names.stream().sorted().findFirst();
  }
}
