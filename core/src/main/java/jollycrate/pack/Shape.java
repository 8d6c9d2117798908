package jollycrate.pack;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** What a project is packed as. */
public enum Shape {
  /** For a standalone server (Jakarta Servlet 6.0, section 10.5). */
  WAR("war", "WAR", "war"),
  /** For a standalone server, and runs by {@code java -jar}. */
  EXECUTABLE_WAR("executable-war", "executable WAR", "war"),
  /** Runs by {@code java -jar}; the libraries' content stands in it. */
  MERGED_JAR("merged-jar", "executable JAR, merged", "jar"),
  /** Runs by {@code java -jar}; the libraries stand beside it. */
  JAR_AND_LIBS("jar-and-libs", "executable JAR with libraries beside", "zip"),
  /** Static pages as a WAR. */
  WEB("front-end", "front end", "war");

  private final String key;
  private final String label;
  private final String ending;

  Shape(String key, String label, String ending) {
    this.key = key;
    this.label = label;
    this.ending = ending;
  }

  /** How {@code jolly.toml} calls it. */
  public String key() {
    return key;
  }

  /** How people call it. */
  public String label() {
    return label;
  }

  /** The file name's ending, without a dot. */
  public String ending() {
    return ending;
  }

  /** Whether a servlet container takes it. */
  public boolean isWar() {
    return ending.equals("war");
  }

  /** Whether its own classes stand at the root. */
  public boolean isJar() {
    return this == MERGED_JAR || this == JAR_AND_LIBS;
  }

  /** The shape that {@code jolly.toml} calls so. */
  public static Optional<Shape> of(String key) {
    return Arrays.stream(values()).filter(shape -> shape.key.equals(key)).findFirst();
  }

  /** Every key. */
  public static List<String> keys() {
    return Arrays.stream(values()).map(Shape::key).toList();
  }
}
