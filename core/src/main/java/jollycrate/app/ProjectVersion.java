package jollycrate.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import jollycrate.file.Placeholder;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** The version that a Maven project gives itself (POM reference, "Maven Coordinates"). */
public final class ProjectVersion {
  private static final int MOST_BYTES = 1 << 20;
  private static final int MOST_TURNS = 10;

  private ProjectVersion() {}

  /**
   * The version in a {@code pom.xml}: its own, else its parent's, with properties that stand in the
   * same file put in.
   *
   * @throws IOException when it cannot be read, says no version, or one that only a build knows
   */
  public static String of(Path pom) throws IOException {
    XmlElement project = project(pom);
    String version =
        text(project, "version")
            .or(() -> project.child("parent").flatMap(parent -> text(parent, "version")))
            .orElseThrow(() -> new IOException("it says no version"));
    Optional<Placeholder> property = Placeholder.in(version, 0);
    for (int turn = 0; turn < MOST_TURNS && property.isPresent(); turn++) {
      String name = property.get().inside();
      String value =
          project
              .child("properties")
              .flatMap(properties -> text(properties, name))
              .orElseThrow(
                  () -> new IOException("it says '${" + name + "}', which it does not set"));
      version = property.get().replacedIn(version, value);
      property = Placeholder.in(version, 0);
    }
    return version;
  }

  private static XmlElement project(Path pom) throws IOException {
    if (Files.size(pom) > MOST_BYTES) {
      throw new IOException("it is larger than 1 MB");
    }
    try {
      return XmlDocument.parse(pom.toString(), Files.readString(pom)).root();
    } catch (XmlException e) {
      throw new IOException(e.getMessage(), e);
    }
  }

  private static Optional<String> text(XmlElement element, String name) {
    return element.child(name).map(child -> child.text().strip()).filter(text -> !text.isEmpty());
  }
}
