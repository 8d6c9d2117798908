package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
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
 * @param scripts what is done to its database before a release takes its place, in this order
 */
public record DataSource(
    String jndiName,
    String url,
    String user,
    Optional<Reference> password,
    Path driver,
    Optional<String> driverClass,
    int most,
    Duration patience,
    List<Script> scripts) {

  /** The file of a Maven repository that is named in place of an archive. */
  public Optional<MavenCoordinates> coordinates() {
    return Optional.of(driver.getFileName().toString())
        .filter(MavenCoordinates::isMeantBy)
        .map(MavenCoordinates::of);
  }

  /** The same with an archive that holds the driver. */
  public DataSource drivenBy(Path archive) {
    return new DataSource(
        jndiName, url, user, password, archive, driverClass, most, patience, scripts);
  }

  /** The same with what is done to its database. */
  public DataSource applying(List<Script> before) {
    return new DataSource(
        jndiName, url, user, password, driver, driverClass, most, patience, before);
  }

  /** The same with its files in other places. */
  DataSource movedTo(UnaryOperator<Path> place) {
    return drivenBy(place.apply(driver))
        .applying(scripts.stream().map(script -> script.movedTo(place)).toList());
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
        patience,
        scripts);
  }
}
