package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import java.util.ServiceLoader;

/**
 * Opens one JDBC connection and tells how it went, so that a data source can be tried from where it
 * will be used: with the server's Java, driver and working folder.
 *
 * <p>Standard input: driver class or an empty line, URL, user or an empty line, password, and a
 * query that only reads or an empty line; one line each. Standard output: one line, {@code ok TAB
 * product TAB version}, or of a query {@code row TAB first value} or {@code none}, or {@code sql
 * TAB state TAB code TAB message}, or {@code driver TAB message}.
 */
public final class ConnectProbe {
  private static final int QUERY_SECONDS = 10;

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
    String query = in.readLine();
    System.out.println(connect(driver, url, properties, query == null ? "" : query));
  }

  private static void set(Properties properties, String key, String value) {
    if (value != null && !value.isEmpty()) {
      properties.setProperty(key, value);
    }
  }

  private static String connect(
      String driverClass, String url, Properties properties, String query) {
    try {
      Driver driver = driver(driverClass, url);
      if (driver == null) {
        return "driver\tno driver in the given file understands this URL";
      }
      try (Connection connection = driver.connect(url, properties)) {
        if (connection == null) {
          return "driver\tthe driver does not understand this URL";
        }
        if (!query.isEmpty()) {
          return asked(connection, query);
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

  /** Drivers take a wish to read only for a transaction; whatever was done is undone. */
  private static String asked(Connection connection, String query) throws SQLException {
    connection.setReadOnly(true);
    connection.setAutoCommit(false);
    try (Statement statement = connection.createStatement()) {
      statement.setMaxRows(1);
      statement.setQueryTimeout(QUERY_SECONDS);
      try (ResultSet rows = statement.executeQuery(query)) {
        return rows.next() ? "row\t" + line(rows.getString(1)) : "none";
      }
    } finally {
      connection.rollback();
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
