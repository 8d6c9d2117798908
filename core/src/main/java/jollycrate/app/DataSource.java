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
    Duration patience) {}
