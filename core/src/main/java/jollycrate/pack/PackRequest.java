package jollycrate.pack;

import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;

/**
 * What goes into an artifact.
 *
 * @param name of the application
 * @param version of the release
 * @param classes folders of compiled classes and resources
 * @param web folders whose content goes to the root of a WAR
 * @param libs libraries, in the order of the class path
 * @param standalone libraries that it needs only when it runs standalone
 * @param main class to start, when it is told
 * @param choice what stays outside
 * @param standaloneSettings what the launcher of an executable WAR reads: listener, data sources,
 *     users; no secret
 * @param pages how a front end is prepared for its place
 * @param time that no entry is later than
 */
public record PackRequest(
    String name,
    String version,
    Shape shape,
    List<Path> classes,
    List<Path> web,
    List<Path> libs,
    List<Path> standalone,
    Optional<String> main,
    Choice choice,
    SortedMap<String, String> standaloneSettings,
    Pages pages,
    LocalDateTime time) {
  /** No entry is later unless told: 17 years have a time for each of 2<sup>28</sup> contents. */
  public static final LocalDateTime FIXED_TIME = LocalDateTime.of(2017, 1, 2, 0, 0);

  /**
   * What goes in and what does not.
   *
   * @param packages packages whose classes go in, with those below them; empty: all
   * @param leaveOut patterns over paths inside, as in {@link java.nio.file.FileSystem
   *     #getPathMatcher} with the syntax {@code glob}
   * @param keep patterns over file names of libraries that go in although a server brings them
   * @param freshPages whether a filter is added by which browsers ask for pages each time
   */
  public record Choice(
      List<String> packages, List<String> leaveOut, List<String> keep, boolean freshPages) {
    /** Everything goes in, and nothing is added. */
    public static final Choice ALL = new Choice(List.of(), List.of(), List.of(), false);
  }

  /**
   * How a front end is prepared for its place.
   *
   * @param path context path, {@code /} for the root
   * @param settings values for the page
   * @param settingsFile path inside of the JSON file that they go to; empty: into the pages' block
   * @param fallback page that answers navigations to paths where nothing stands
   * @param javax whether the server offers {@code javax.servlet}
   */
  public record Pages(
      String path,
      Map<String, ?> settings,
      Optional<String> settingsFile,
      Optional<String> fallback,
      boolean javax) {
    /** At the root, without settings. */
    public static final Pages PLAIN =
        new Pages("/", Map.of(), Optional.empty(), Optional.empty(), false);
  }
}
