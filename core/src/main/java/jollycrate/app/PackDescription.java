package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.pack.PackRequest;
import jollycrate.pack.Shape;

/**
 * A {@code [pack]} or {@code [pack.NAME]} table: what becomes an artifact.
 *
 * @param name of the table, empty when there is only one
 * @param libs empty when they are the project's own, as its {@code pom.xml} tells
 * @param standalone libraries that it needs only when it runs standalone
 * @param main class to start, when it is told
 * @param settingsFile path inside of the JSON file that settings go to
 * @param fallback page that answers navigations to paths where nothing stands
 * @param javax whether the server of a front end offers {@code javax.servlet}
 * @param target the artifact that {@code jolly pack} writes
 */
public record PackDescription(
    String name,
    Shape shape,
    List<Path> classes,
    List<Path> web,
    Optional<LibraryPatterns> libs,
    LibraryPatterns standalone,
    Optional<String> main,
    PackRequest.Choice choice,
    Optional<String> settingsFile,
    Optional<String> fallback,
    boolean javax,
    Path target) {

  /** The same in another shape. */
  public PackDescription in(Shape other) {
    return new PackDescription(
        name,
        other,
        classes,
        web,
        libs,
        standalone,
        main,
        choice,
        settingsFile,
        fallback,
        javax,
        target);
  }
}
