package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.SQLException;
import java.util.Properties;
import java.util.ServiceLoader;

/** Where a probe connects to: driver class or nothing, URL, user and password, a line for each. */
final class Database {
  private final String driverClass;
  private final String url;
  private final Properties properties = new Properties();

  private Database(String driverClass, String url) {
    this.driverClass = driverClass;
    this.url = url;
  }

  static Database read(BufferedReader in) throws IOException {
    Database database = new Database(in.readLine(), in.readLine());
    database.set("user", in.readLine());
    database.set("password", in.readLine());
    return database;
  }

  private void set(String key, String value) {
    if (value != null && !value.isEmpty()) {
      properties.setProperty(key, value);
    }
  }

  /** What is done with a connection; its word is told. */
  interface Use {
    String of(Connection connection) throws SQLException;
  }

  /** Connects, and tells what came of it or why nothing did. */
  String use(Use use) {
    try {
      Driver driver = driver();
      if (driver == null) {
        return "driver\tno driver in the given file understands this URL";
      }
      try (Connection connection = driver.connect(url, properties)) {
        return connection == null
            ? "driver\tthe driver does not understand this URL"
            : use.of(connection);
      }
    } catch (SQLException e) {
      return failed(e);
    } catch (ReflectiveOperationException e) {
      return "driver\tclass " + driverClass + " cannot be loaded: " + line(String.valueOf(e));
    } catch (LinkageError e) {
      return "driver\t" + line(String.valueOf(e));
    }
  }

  /** What a database or its driver said. */
  static String failed(SQLException e) {
    return "sql\t" + e.getSQLState() + "\t" + e.getErrorCode() + "\t" + line(e.getMessage());
  }

  private Driver driver() throws ReflectiveOperationException, SQLException {
    if (!driverClass.isEmpty()) {
      return (Driver) Class.forName(driverClass).getDeclaredConstructor().newInstance();
    }
    for (Driver driver : ServiceLoader.load(Driver.class)) {
      if (driver.acceptsURL(url)) {
        return driver;
      }
    }
    return null;
  }

  static String line(String text) {
    return String.valueOf(text).replaceAll("[\\r\\n\\t]+", " ");
  }
}
