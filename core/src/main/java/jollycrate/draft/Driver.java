package jollycrate.draft;

import java.util.Map;
import java.util.Optional;

/**
 * A library that holds a JDBC driver.
 *
 * @param url the form of its URLs, with words in capitals for what must be told
 * @param packed whether it is packed into the application
 * @param where line that names it
 */
record Driver(String group, String artifact, String url, boolean packed, String where) {
  private static final Map<String, String> URLS =
      Map.ofEntries(
          Map.entry("com.h2database:h2", "jdbc:h2:file:./data/NAME"),
          Map.entry("org.hsqldb:hsqldb", "jdbc:hsqldb:file:data/NAME"),
          Map.entry("org.apache.derby:derby", "jdbc:derby:data/NAME"),
          Map.entry("org.postgresql:postgresql", "jdbc:postgresql://HOST:5432/NAME"),
          Map.entry("com.mysql:mysql-connector-j", "jdbc:mysql://HOST:3306/NAME"),
          Map.entry("mysql:mysql-connector-java", "jdbc:mysql://HOST:3306/NAME"),
          Map.entry("org.mariadb.jdbc:mariadb-java-client", "jdbc:mariadb://HOST:3306/NAME"),
          Map.entry("com.microsoft.sqlserver:mssql-jdbc", "jdbc:sqlserver://HOST:1433"),
          Map.entry("com.oracle.database.jdbc:ojdbc11", "jdbc:oracle:thin:@HOST:1521/NAME"));

  static Optional<Driver> of(String group, String artifact, boolean packed, String where) {
    return Optional.ofNullable(URLS.get(group + ":" + artifact))
        .map(url -> new Driver(group, artifact, url, packed, where));
  }
}
