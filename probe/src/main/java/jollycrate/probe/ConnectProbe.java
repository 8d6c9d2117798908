package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;

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
    Database database = Database.read(in);
    String query = in.readLine();
    boolean asks = query != null && !query.isEmpty();
    System.out.println(
        database.use(connection -> asks ? asked(connection, query) : greeted(connection)));
  }

  private static String greeted(Connection connection) throws SQLException {
    return "ok\t"
        + Database.line(connection.getMetaData().getDatabaseProductName())
        + "\t"
        + Database.line(connection.getMetaData().getDatabaseProductVersion());
  }

  /** Drivers take a wish to read only for a transaction; whatever was done is undone. */
  private static String asked(Connection connection, String query) throws SQLException {
    connection.setReadOnly(true);
    connection.setAutoCommit(false);
    try (Statement statement = connection.createStatement()) {
      statement.setMaxRows(1);
      statement.setQueryTimeout(QUERY_SECONDS);
      try (ResultSet rows = statement.executeQuery(query)) {
        return rows.next() ? "row\t" + Database.line(rows.getString(1)) : "none";
      }
    } finally {
      connection.rollback();
    }
  }
}
