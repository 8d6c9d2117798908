package jollycrate.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** The version that a Maven project gives itself (POM reference, "Maven Coordinates"). */
public final class ProjectVersion {
  private static final Pattern PROPERTY = Pattern.compile("\\$\\{([^}]+)}");
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
    for (int turn = 0; turn < MOST_TURNS && version.contains("${"); turn++) {
      Matcher matcher = PROPERTY.matcher(version);
      if (!matcher.find()) {
        break;
      }
      String name = matcher.group(1);
      String value =
          project
              .child("properties")
              .flatMap(properties -> text(properties, name))
              .orElseThrow(
                  () -> new IOException("it says '${" + name + "}', which it does not set"));
      version = matcher.replaceFirst(Matcher.quoteReplacement(value));
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
