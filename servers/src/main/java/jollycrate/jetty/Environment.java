package jollycrate.jetty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ServletNamespace;

/**
 * An edition of Jakarta EE, or Java EE, that a Jetty serves applications in.
 *
 * @param name as Jetty calls it
 */
record Environment(String name, ServletNamespace namespace) {
  /** Where applications for javax.servlet go on a server that we made. */
  static final String JAVAX_FOLDER = "webapps-javax";

  /** The newest first, as Jetty chooses when it is not told. */
  static final List<Environment> PREFERRED =
      List.of(
          new Environment("ee11", ServletNamespace.JAKARTA),
          new Environment("ee10", ServletNamespace.JAKARTA),
          new Environment("ee9", ServletNamespace.JAKARTA),
          new Environment("ee8", ServletNamespace.JAVAX));

  /** The servlet API that an artifact needs. */
  static ServletNamespace neededBy(Artifact artifact) {
    boolean javax =
        artifact.web().servlets().startedWithout(ServletNamespace.JAKARTA).isPresent()
            || artifact.web().namespace() == ServletNamespace.JAVAX;
    return javax ? ServletNamespace.JAVAX : ServletNamespace.JAKARTA;
  }

  /** The first of some for a servlet API. */
  static Optional<Environment> first(List<Environment> some, ServletNamespace namespace) {
    return some.stream().filter(one -> one.namespace() == namespace).findFirst();
  }

  /** The class that a web application is there. */
  String contextClass() {
    return "org.eclipse.jetty." + name + ".webapp.WebAppContext";
  }

  /** The folder for its applications on a server that we made. */
  Path folder(Path base) {
    return base.resolve(namespace == ServletNamespace.JAVAX ? JAVAX_FOLDER : "webapps");
  }
}
