package bell.tower;

import bell.sound.Tone;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;

/** Every ring so far, in a database. */
final class Rings implements AutoCloseable {
  private final Connection connection;

  Rings(String url, String user, String password) throws SQLException {
    connection = DriverManager.getConnection(url, user, password);
    try (Statement statement = connection.createStatement()) {
      statement.execute(
          "CREATE TABLE IF NOT EXISTS ring"
              + " (id INT GENERATED ALWAYS AS IDENTITY, tone VARCHAR(10) NOT NULL)");
    }
  }

  synchronized void add(Tone tone) throws SQLException {
    try (PreparedStatement insert =
        connection.prepareStatement("INSERT INTO ring (tone) VALUES (?)")) {
      insert.setString(1, tone.name());
      insert.executeUpdate();
    }
  }

  synchronized int count() throws SQLException {
    try (Statement statement = connection.createStatement();
        ResultSet result = statement.executeQuery("SELECT COUNT(*) FROM ring")) {
      result.next();
      return result.getInt(1);
    }
  }

  @Override
  public void close() throws SQLException {
    connection.close();
  }
}
