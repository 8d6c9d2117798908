package jollycrate.artifact;

import java.util.List;
import java.util.Optional;

/**
 * Which servlet API an artifact needs, and what shows it.
 *
 * @param uses one for each place that shows it, the surest first
 */
public record ServletApi(List<Use> uses) {
  /** Uses none. */
  public static final ServletApi NONE = new ServletApi(List.of());

  /**
   * A use of the API.
   *
   * @param seen entry, with the line of a descriptor or the class behind it
   * @param started whether the container starts it, so that the wrong API ends the start
   */
  public record Use(ServletNamespace namespace, String seen, boolean started) {}

  /** All namespaces that are used. */
  public ServletNamespace namespace() {
    return ServletNamespace.of(
        use(ServletNamespace.JAVAX).isPresent(), use(ServletNamespace.JAKARTA).isPresent());
  }

  /** The surest use of a namespace. */
  public Optional<Use> use(ServletNamespace namespace) {
    return uses.stream().filter(use -> use.namespace() == namespace).findFirst();
  }

  /** Something that the container starts by another API than the one it offers. */
  public Optional<Use> startedWithout(ServletNamespace offered) {
    return uses.stream().filter(use -> use.started() && use.namespace() != offered).findFirst();
  }
}
