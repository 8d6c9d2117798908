package jollycrate.app;

import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The name of a file in a Maven repository, written {@code maven:GROUP:ARTIFACT[:VERSION[:TYPE[:
 * CLASSIFIER]]]}.
 *
 * @param version empty: the one that the project's {@code pom.xml} says
 * @param type the file's ending, like {@code war}
 * @param classifier empty where there is none
 */
public record MavenCoordinates(
    String group, String artifact, Optional<String> version, String type, String classifier) {
  private static final String BEGIN = "maven:";
  private static final Pattern PART = Pattern.compile("[A-Za-z0-9_][A-Za-z0-9_.+-]*");
  private static final int FEWEST = 2;
  private static final int MOST = 5;
  private static final String FORM = "Write it like maven:org.spokes:spokes:1.5.0:war";

  /** Whether a text is meant as coordinates. */
  public static boolean isMeantBy(String text) {
    return text.startsWith(BEGIN);
  }

  /**
   * Reads coordinates.
   *
   * @throws IllegalArgumentException with the reason and the mend when the text is none
   */
  public static MavenCoordinates of(String text) {
    String[] parts = text.substring(BEGIN.length()).split(":", -1);
    if (parts.length < FEWEST || parts.length > MOST) {
      throw new IllegalArgumentException("it has " + parts.length + " parts. " + FORM);
    }
    for (String part : parts) {
      if (!PART.matcher(part).matches()) {
        throw new IllegalArgumentException("'" + part + "' cannot stand in it. " + FORM);
      }
    }
    Optional<String> version = part(parts, 2);
    if (version.filter(named -> named.equals("LATEST") || named.equals("RELEASE")).isPresent()) {
      throw new IllegalArgumentException(
          "'" + parts[2] + "' may be another file tomorrow. Name the version");
    }
    return new MavenCoordinates(
        parts[0], parts[1], version, part(parts, 3).orElse("jar"), part(parts, 4).orElse(""));
  }

  private static Optional<String> part(String[] parts, int index) {
    return index < parts.length ? Optional.of(parts[index]) : Optional.empty();
  }

  /** As people write it. */
  @Override
  public String toString() {
    StringBuilder text = new StringBuilder(BEGIN).append(group).append(':').append(artifact);
    version.ifPresent(named -> text.append(':').append(named));
    if (version.isPresent() && (!type.equals("jar") || !classifier.isEmpty())) {
      text.append(':').append(type);
    }
    return classifier.isEmpty() ? text.toString() : text.append(':').append(classifier).toString();
  }
}
