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
 * @param artifact a finished artifact, in place of {@code pack}
 * @param path context path; empty: the server's own rule for the artifact's file name
 * @param startsWithin how long it may take until the server says it is up
 * @param roles users by role
 */
public record Application(
    Optional<Path> file,
    String name,
    Optional<String> version,
    Optional<PackDescription> pack,
    Optional<Path> artifact,
    Optional<String> path,
    Duration startsWithin,
    List<DataSource> dataSources,
    List<User> users,
    Map<String, List<String>> roles,
    List<Check> checks) {
  /** How long an application may take to start when nothing is said. */
  public static final Duration STARTS_WITHIN = Duration.ofSeconds(60);

  /** An application of which nothing is known but its artifact. */
  public static Application of(Path artifact, String name, Optional<String> path) {
    return new Application(
        Optional.empty(),
        name,
        Optional.empty(),
        Optional.empty(),
        Optional.of(artifact),
        path,
        STARTS_WITHIN,
        List.of(),
        List.of(),
        Map.of(),
        List.of());
  }

  /** The same at a context path. */
  public Application at(String contextPath) {
    return new Application(
        file,
        name,
        version,
        pack,
        artifact,
        Optional.of(contextPath),
        startsWithin,
        dataSources,
        users,
        roles,
        checks);
  }

  /** The user of that name. */
  public Optional<User> user(String userName) {
    return users.stream().filter(user -> user.name().equals(userName)).findFirst();
  }
}
