package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.SQLException;
import java.util.Properties;
import java.util.ServiceLoader;

/**
 * Opens one JDBC connection and tells how it went, so that a data source can be tried from where it
 * will be used: with the server's Java, driver and working folder.
 *
 * <p>Standard input: driver class or an empty line, URL, user or an empty line, password; one line
 * each. Standard output: one line, {@code ok TAB product TAB version}, or {@code sql TAB state TAB
 * code TAB message}, or {@code driver TAB message}.
 */
public final class ConnectProbe {
  private ConnectProbe() {}

  /** Runs the probe; exit code 0 in every case that was told on standard output. */
  public static void main(String[] args) throws IOException {
    BufferedReader in =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    String driver = in.readLine();
    String url = in.readLine();
    Properties properties = new Properties();
    set(properties, "user", in.readLine());
    set(properties, "password", in.readLine());
    System.out.println(connect(driver, url, properties));
  }

  private static void set(Properties properties, String key, String value) {
    if (value != null && !value.isEmpty()) {
      properties.setProperty(key, value);
    }
  }

  private static String connect(String driverClass, String url, Properties properties) {
    try {
      Driver driver = driver(driverClass, url);
      if (driver == null) {
        return "driver\tno driver in the given file understands this URL";
      }
      try (Connection connection = driver.connect(url, properties)) {
        if (connection == null) {
          return "driver\tthe driver does not understand this URL";
        }
        return "ok\t"
            + line(connection.getMetaData().getDatabaseProductName())
            + "\t"
            + line(connection.getMetaData().getDatabaseProductVersion());
      }
    } catch (SQLException e) {
      return "sql\t" + e.getSQLState() + "\t" + e.getErrorCode() + "\t" + line(e.getMessage());
    } catch (ReflectiveOperationException e) {
      return "driver\tclass " + driverClass + " cannot be loaded: " + line(String.valueOf(e));
    } catch (LinkageError e) {
      return "driver\t" + line(String.valueOf(e));
    }
  }

  private static Driver driver(String className, String url)
      throws ReflectiveOperationException, SQLException {
    if (!className.isEmpty()) {
      return (Driver) Class.forName(className).getDeclaredConstructor().newInstance();
    }
    for (Driver driver : ServiceLoader.load(Driver.class)) {
      if (driver.acceptsURL(url)) {
        return driver;
      }
    }
    return null;
  }

  private static String line(String text) {
    return String.valueOf(text).replaceAll("[\\r\\n\\t]+", " ");
  }
}
