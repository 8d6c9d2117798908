package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UnsupportedEncodingException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.SQLFeatureNotSupportedException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * Reads and keeps in a database which scripts were applied to it, and applies them. Where the
 * database undoes its definitions with a transaction, a script and the note of it are one;
 * elsewhere it is noted before the first statement that the script was begun.
 *
 * <p>Standard input: where to connect to, as for {@link ConnectProbe}; then either {@code list} and
 * the application, or {@code turn} with application, script, digest, time, person, the stage that
 * must be noted, the one while its statements are carried out and the one afterwards (empty: none),
 * and for each statement {@code statement TAB line TAB text}; one line each. All but the words that
 * begin a line are escaped as in a URL.
 *
 * <p>Standard output: for {@code list} a line {@code script TAB name TAB digest TAB stage TAB time
 * TAB person} for each, then {@code end}; for {@code turn} {@code turned}, {@code other TAB stage}
 * when another stage is noted, or {@code at TAB line TAB whether all of it was undone} before
 * {@code sql ...}; else as for {@link ConnectProbe}.
 */
public final class ScriptProbe {
  private static final String TABLE = "jolly_scripts";
  private static final String MADE =
      " (application VARCHAR(100) NOT NULL, script VARCHAR(200) NOT NULL,"
          + " digest VARCHAR(64) NOT NULL, stage VARCHAR(10) NOT NULL,"
          + " noted_at VARCHAR(40) NOT NULL, noted_by VARCHAR(200) NOT NULL,"
          + " PRIMARY KEY (application, script))";

  /** As the tool itself tells such a statement before. */
  private static final Pattern TRANSACTION =
      Pattern.compile(
          "(?:BEGIN|START\\s+TRANSACTION|COMMIT|END|ROLLBACK|ABORT)"
              + "(?:\\s+(?:WORK|TRANSACTION|AND\\s.*))?",
          Pattern.CASE_INSENSITIVE | Pattern.DOTALL);

  private static final int LONGEST_CONTROL = 100;

  /** Class of SQL states for keys that are there already (ISO/IEC 9075-2, 24.1). */
  private static final String TAKEN = "23";

  private static final String ONE = " WHERE application = ? AND script = ?";

  private ScriptProbe() {}

  /** Runs the probe; exit code 0 in every case that was told on standard output. */
  public static void main(String[] args) throws IOException {
    BufferedReader in =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    Database database = Database.read(in);
    String word = in.readLine();
    String application = read(in);
    if (word.equals("list")) {
      System.out.println(database.use(connection -> list(connection, application)));
    } else {
      Turn turn = new Turn(application, in);
      System.out.println(database.use(turn::carryOut));
    }
  }

  private static String read(BufferedReader in) throws IOException {
    return unescaped(in.readLine());
  }

  private static String unescaped(String text) throws UnsupportedEncodingException {
    return URLDecoder.decode(text, "UTF-8");
  }

  private static String escaped(String text) {
    try {
      return URLEncoder.encode(text, "UTF-8");
    } catch (UnsupportedEncodingException e) {
      throw new IllegalStateException(e);
    }
  }

  private static String list(Connection connection, String application) throws SQLException {
    StringBuilder told = new StringBuilder();
    if (isThere(connection)) {
      String query =
          "SELECT script, digest, stage, noted_at, noted_by FROM "
              + qualified(connection)
              + " WHERE application = ? ORDER BY noted_at, script";
      try (PreparedStatement statement = connection.prepareStatement(query)) {
        statement.setString(1, application);
        try (ResultSet rows = statement.executeQuery()) {
          while (rows.next()) {
            told.append("script");
            for (int i = 1; i <= 5; i++) {
              told.append('\t').append(escaped(rows.getString(i)));
            }
            told.append('\n');
          }
        }
      }
    }
    return told.append("end").toString();
  }

  /** Databases write names that are not quoted in their own case. */
  private static boolean isThere(Connection connection) throws SQLException {
    DatabaseMetaData data = connection.getMetaData();
    String name = data.storesUpperCaseIdentifiers() ? TABLE.toUpperCase(Locale.ROOT) : TABLE;
    try (ResultSet tables =
        data.getTables(connection.getCatalog(), schema(connection), name, null)) {
      while (tables.next()) {
        if (tables.getString("TABLE_NAME").equalsIgnoreCase(TABLE)) {
          return true;
        }
      }
      return false;
    }
  }

  /**
   * The table with the schema that the connection begins in, or the catalog where there are none:
   * whatever a script makes the current one, the table is found.
   */
  private static String qualified(Connection connection) throws SQLException {
    String schema = schema(connection);
    String within = schema == null || schema.isEmpty() ? connection.getCatalog() : schema;
    String quote = connection.getMetaData().getIdentifierQuoteString().trim();
    boolean quotable = within != null && !within.isEmpty() && !quote.isEmpty();
    return quotable ? quote + within.replace(quote, quote + quote) + quote + "." + TABLE : TABLE;
  }

  /** Null where a driver of old does not tell: then tables of every schema count. */
  private static String schema(Connection connection) throws SQLException {
    try {
      return connection.getSchema();
    } catch (AbstractMethodError | SQLFeatureNotSupportedException untold) {
      return null;
    }
  }

  /** One step of a script from a stage to another. */
  private static final class Turn {
    private final String application;
    private final String script;
    private final String digest;
    private final String time;
    private final String person;
    private final String expected;
    private final String during;
    private final String after;
    private boolean begun;
    private boolean whole;
    private String table = TABLE;
    private final List<Integer> lines = new ArrayList<>();
    private final List<String> statements = new ArrayList<>();

    Turn(String application, BufferedReader in) throws IOException {
      this.application = application;
      this.script = read(in);
      this.digest = read(in);
      this.time = read(in);
      this.person = read(in);
      this.expected = read(in);
      this.during = read(in);
      this.after = read(in);
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        String[] words = line.split("\t");
        lines.add(Integer.valueOf(words[1]));
        statements.add(unescaped(words[2]));
      }
    }

    String carryOut(Connection connection) {
      try {
        return tried(connection);
      } catch (SQLException e) {
        return "at\t0\t" + isUndone(e) + "\n" + Database.failed(e);
      }
    }

    /** What a lost connection came to nobody knows (classes of SQL states: 08, and 40003). */
    private boolean isUndone(SQLException e) {
      String state = String.valueOf(e.getSQLState());
      boolean unknown = state.startsWith("08") || state.equals("40003");
      return !begun || whole && !unknown;
    }

    private String tried(Connection connection) throws SQLException {
      table = qualified(connection);
      if (!isThere(connection)) {
        try (Statement statement = connection.createStatement()) {
          statement.execute("CREATE TABLE " + table + MADE);
        } catch (SQLException e) {
          if (isThere(connection)) {
            return tried(connection);
          }
          throw new SQLException(
              "the table " + TABLE + " cannot be made: " + e.getMessage(), e.getSQLState());
        }
      }
      connection.setAutoCommit(false);
      String noted = noted(connection);
      if (!noted.equals(expected)) {
        connection.rollback();
        return "other\t" + escaped(noted);
      }
      whole =
          !connection.getMetaData().dataDefinitionCausesTransactionCommit()
              && !controlsTransactions();
      try {
        note(connection, noted, during);
      } catch (SQLException e) {
        if (e.getSQLState() == null || !e.getSQLState().startsWith(TAKEN)) {
          throw e;
        }
        connection.rollback();
        return "other\t" + escaped(noted(connection));
      }
      if (!whole) {
        connection.commit();
      }
      begun = true;
      String failure = statements(connection, noted);
      if (failure.isEmpty()) {
        note(connection, during, after);
        connection.commit();
        return "turned";
      }
      return failure;
    }

    /** Why one of them failed; empty when none did. */
    private String statements(Connection connection, String noted) throws SQLException {
      for (int i = 0; i < statements.size(); i++) {
        try (Statement statement = connection.createStatement()) {
          statement.execute(statements.get(i));
        } catch (SQLException e) {
          connection.rollback();
          if (!whole && i == 0) {
            note(connection, during, noted);
            connection.commit();
          }
          return "at\t" + lines.get(i) + "\t" + (whole || i == 0) + "\n" + Database.failed(e);
        }
      }
      return "";
    }

    /** Whether a statement ends the transaction that all of them are to be. */
    private boolean controlsTransactions() {
      for (String statement : statements) {
        if (statement.length() < LONGEST_CONTROL && TRANSACTION.matcher(statement).matches()) {
          return true;
        }
      }
      return false;
    }

    private String noted(Connection connection) throws SQLException {
      String query = "SELECT stage FROM " + table + ONE;
      try (PreparedStatement statement = connection.prepareStatement(query)) {
        statement.setString(1, application);
        statement.setString(2, script);
        try (ResultSet rows = statement.executeQuery()) {
          return rows.next() ? rows.getString(1) : "";
        }
      }
    }

    /** Fails when somebody else noted something meanwhile: the key is there once. */
    private void note(Connection connection, String from, String to) throws SQLException {
      if (from.isEmpty() && to.isEmpty()) {
        return;
      }
      if (to.isEmpty()) {
        update(
            connection, "DELETE FROM " + table + ONE + " AND stage = ?", application, script, from);
      } else if (from.isEmpty()) {
        String insert =
            "INSERT INTO "
                + table
                + " (application, script, digest, stage, noted_at, noted_by)"
                + " VALUES (?, ?, ?, ?, ?, ?)";
        update(connection, insert, application, script, digest, to, time, person);
      } else {
        String update =
            "UPDATE "
                + table
                + " SET digest = ?, stage = ?, noted_at = ?, noted_by = ?"
                + ONE
                + " AND stage = ?";
        update(connection, update, digest, to, time, person, application, script, from);
      }
    }

    private static void update(Connection connection, String sql, String... values)
        throws SQLException {
      try (PreparedStatement statement = connection.prepareStatement(sql)) {
        for (int i = 0; i < values.length; i++) {
          statement.setString(i + 1, values[i]);
        }
        if (statement.executeUpdate() != 1) {
          throw new SQLException("somebody else notes something of this script just now");
        }
      }
    }
  }
}
