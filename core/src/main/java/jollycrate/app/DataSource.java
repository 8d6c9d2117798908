package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * A JDBC data source that the server offers to the application.
 *
 * @param jndiName below {@code java:comp/env/}
 * @param url JDBC URL; a relative file in it starts from the server's folder
 * @param user empty when the database asks for none
 * @param driver archive that holds the driver
 * @param driverClass empty: found through the archive's service file
 * @param most most connections open at a time
 * @param patience how long a caller waits for a free connection
 */
public record DataSource(
    String jndiName,
    String url,
    String user,
    Optional<Reference> password,
    Path driver,
    Optional<String> driverClass,
    int most,
    Duration patience) {
  private static final String MAVEN = "maven:";

  /** A library of a Maven project. */
  public record Library(String group, String artifact) {}

  /** The library of the Maven project that is named in place of an archive. */
  public Optional<Library> library() {
    return Optional.of(driver.getFileName().toString())
        .filter(name -> name.startsWith(MAVEN))
        .map(name -> name.substring(MAVEN.length()).split(":"))
        .filter(parts -> parts.length == 2)
        .map(parts -> new Library(parts[0], parts[1]));
  }

  /** The same with an archive that holds the driver. */
  public DataSource drivenBy(Path archive) {
    return new DataSource(jndiName, url, user, password, archive, driverClass, most, patience);
  }

  /** The same whose password is looked for from another folder on. */
  DataSource from(Path folder) {
    return new DataSource(
        jndiName,
        url,
        user,
        password.map(reference -> reference.from(folder)),
        driver,
        driverClass,
        most,
        patience);
  }
}
