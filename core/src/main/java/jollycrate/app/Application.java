package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What {@code jolly.toml} describes.
 *
 * @param file where it stands; empty for an application made of an artifact alone
 * @param version empty: the artifact tells
 * @param packs what it is packed as; empty for a finished artifact
 * @param delivered name among {@code packs} of the one that goes to servers, when that is clear
 * @param build how the project makes what is packed
 * @param settings values for the pages of a front end, as JSON
 * @param artifact a finished artifact, in place of {@code pack}
 * @param path context path; empty: the server's own rule for the artifact's file name
 * @param startsWithin how long it may take until the server says it is up
 * @param program how it runs as a program of its own
 * @param roles users by role
 */
public record Application(
    Optional<Path> file,
    String name,
    Optional<String> version,
    List<PackDescription> packs,
    Optional<String> delivered,
    Optional<Build> build,
    Map<String, Object> settings,
    Optional<Path> artifact,
    Optional<String> path,
    Duration startsWithin,
    List<DataSource> dataSources,
    List<User> users,
    Map<String, List<String>> roles,
    Program program,
    List<Check> checks) {
  /** How long an application may take to start when nothing is said. */
  public static final Duration STARTS_WITHIN = Duration.ofSeconds(60);

  /** An application of which nothing is known but its artifact. */
  public static Application of(Path artifact, String name, Optional<String> path) {
    return of(artifact, name, path, STARTS_WITHIN);
  }

  /** The same with another time that it may take to start. */
  public static Application of(
      Path artifact, String name, Optional<String> path, Duration startsWithin) {
    return new Application(
        Optional.empty(),
        name,
        Optional.empty(),
        List.of(),
        Optional.empty(),
        Optional.empty(),
        Map.of(),
        Optional.of(artifact),
        path,
        startsWithin,
        List.of(),
        List.of(),
        Map.of(),
        Program.PLAIN,
        List.of());
  }

  /** The same at a context path. */
  public Application at(String contextPath) {
    return new Application(
        file,
        name,
        version,
        packs,
        delivered,
        build,
        settings,
        artifact,
        Optional.of(contextPath),
        startsWithin,
        dataSources,
        users,
        roles,
        program,
        checks);
  }

  /**
   * The same, of which a finished file is delivered: nothing is built or packed.
   *
   * @param release its version
   */
  public Application delivering(Path finished, Optional<String> release) {
    return new Application(
        file,
        name,
        release,
        List.of(),
        Optional.empty(),
        Optional.empty(),
        settings,
        Optional.of(finished),
        path,
        startsWithin,
        dataSources,
        users,
        roles,
        program,
        checks);
  }

  /** What is packed under a name. */
  public Optional<PackDescription> pack(String packName) {
    return packs.stream().filter(pack -> pack.name().equals(packName)).findFirst();
  }

  /** The same with other data sources. */
  public Application withDataSources(List<DataSource> others) {
    return new Application(
        file,
        name,
        version,
        packs,
        delivered,
        build,
        settings,
        artifact,
        path,
        startsWithin,
        others,
        users,
        roles,
        program,
        checks);
  }

  /** The user of that name. */
  public Optional<User> user(String userName) {
    return users.stream().filter(user -> user.name().equals(userName)).findFirst();
  }
}
