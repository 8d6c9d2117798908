package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.h2.tools.Server;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is done to databases before the switch: once, and taken back where something undoes it. */
class ScriptsIT {
  private static final String TABLES =
      "SELECT COUNT(*) FROM information_schema.tables WHERE UPPER(table_name) = '%s'";
  private static final long LIMIT_NANOS = TimeUnit.SECONDS.toNanos(240);

  @TempDir Path folder;
  private Workshop workshop;

  @BeforeEach
  void aServerIsThere() throws IOException {
    workshop = Workshop.open(folder);
  }

  @AfterEach
  void itStops() {
    workshop.close();
  }

  /** A page that says which release it is, with a data source and what is done to its database. */
  private void describe(String release, String url, Class<? extends Driver> driver, String before)
      throws IOException {
    Path war =
        Wars.empty(workshop.folder).entry("index.html", "release " + release).write("bikes.war");
    Path archive = Path.of(driver.getProtectionDomain().getCodeSource().getLocation().getPath());
    Files.writeString(
        workshop.folder.resolve("jolly.toml"),
        """
        name = "bikes"
        artifact = "%s"
        [datasource."jdbc/bikes"]
        url = "%s"
        driver = "%s"
        [[check]]
        get = "/"
        text = "release right"
        %s
        """
            .formatted(war.getFileName(), url, archive, before));
  }

  private void script(String name, String text) throws IOException {
    Path file = workshop.folder.resolve("db").resolve(name);
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
  }

  /** Its definitions cannot be undone with a transaction. */
  @Test
  void eachIsAppliedOnceAndWhatIsHalfAppliedIsAskedFor() throws IOException, SQLException {
    Server database =
        Server.createTcpServer("-tcpPort", "0", "-ifNotExists", "-baseDir", folder.toString());
    try {
      String url = "jdbc:h2:tcp://127.0.0.1:" + database.start().getPort() + "/./shared";
      String before = "[[before]]\nsql = \"db/*.sql\"\nundo = \"db/undo\"\n";
      describe("right", url, org.h2.Driver.class, before);
      script("1-lamps.sql", "CREATE TABLE lamp (name VARCHAR(9)); INSERT INTO lamp VALUES ('a;b')");
      script("undo/1-lamps.sql", "DROP TABLE lamp");
      assertThat(workshop.ok("deploy", "--to", "bench", "--dry-run"))
          .contains("apply         db/1-lamps.sql to jdbc/bikes");
      assertThat(Postgres.value(url, TABLES.formatted("JOLLY_SCRIPTS"))).isEqualTo("0");
      workshop.ok("deploy", "--to", "bench");
      assertThat(Postgres.value(url, "SELECT name FROM lamp")).isEqualTo("a;b");
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");

      describe("wrong", url, org.h2.Driver.class, before);
      script("2-bells.sql", "CREATE TABLE bell (n INT)");
      script("undo/2-bells.sql", "DROP TABLE bell");
      workshop.ends(5, "deploy", "--to", "bench");
      assertThat(Postgres.value(url, TABLES.formatted("BELL"))).isEqualTo("0");

      describe("right", url, org.h2.Driver.class, before.replace("undo =", "# undo ="));
      script("2-bells.sql", "CREATE TABLE bell (n INT);\n\nINSERT INTO belll VALUES (1)");
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains("warn    db/2-bells.sql: is applied before the switch, and stays even if")
          .contains("at    db/2-bells.sql:3", "Table \"BELLL\" not found")
          .contains("db/2-bells.sql' of jdbc/bikes was cut off while it was applied");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("blocker db/2-bells.sql: was cut off", "--half-applied done");
      assertThat(workshop.ends(5, "deploy", "--to", "bench", "--half-applied", "again").out())
          .contains("at    db/2-bells.sql:1", "some of it may have been applied");
      script("2-bells.sql", "CREATE TABLE IF NOT EXISTS bell (n INT)");
      workshop.ok("deploy", "--to", "bench", "--half-applied", "again");
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");

      script("1-lamps.sql", "CREATE TABLE lamp (name VARCHAR(99))");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("blocker db/1-lamps.sql: was changed since it was applied");
      assertThat(workshop.ok("rollback", "--on", "bench"))
          .contains("its database keeps what this release does not name: db/2-bells.sql");
    } finally {
      database.stop();
    }
  }

  @Test
  void aProgramOfTheTeamSeesTheDatabaseAndNobodySeesItsPassword() throws Exception {
    try (Postgres postgres = new Postgres()) {
      String before =
          """
          [[before]]
          name = "lights"
          run = ["sh", "db/lights.sh", "up"]
          files = ["db/lights.sh"]
          undo = ["sh", "db/lights.sh", "down"]
          """;
      describe(
          "right",
          postgres.url,
          org.postgresql.Driver.class,
          "[[before]]\nsql = \"db/1.sql\"\n"
              + "[[data]]\nquery = \"SELECT COUNT(*) FROM lamp\"\nvalue = 0");
      script("1.sql", "CREATE TABLE lamp (n INT); INSERT INTO lamp VALUES (1); SELECT 1/0");
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains("division by zero; nothing of it is left", "at    db/1.sql:1");
      assertThat(postgres.value(TABLES.formatted("LAMP"))).isEqualTo("0");
      script("1.sql", "BEGIN; CREATE TABLE lamp (n INT); COMMIT; SELECT 1/0");
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains("warn    db/1.sql: begins or ends a transaction by itself", "db/1.sql:1: BEGIN")
          .contains("division by zero; some of it may have been applied");
      script(
          "1.sql",
          "DROP TABLE lamp; SELECT set_config('search_path', '', false);"
              + " CREATE TABLE public.lamp (n INT)");
      assertThat(workshop.ok("deploy", "--to", "bench", "--half-applied", "again"))
          .containsPattern("pass +SELECT COUNT.* jdbc/bikes: 0");
      String password = "password = \"env:SPOKES_DB_PASSWORD\"\n[[check]]";
      describe("right", postgres.url, org.postgresql.Driver.class, before);
      workshop.edit("[[check]]", password);
      script(
          "lights.sh",
          "echo \"$1 $DATABASE_PASSWORD $DATABASE_URL\" >>\"$SERVER_FOLDER/../told\"\n"
              + "ls db; echo \"$DATABASE_PASSWORD\"; exit 3\n");
      assertThat(workshop.ends(5, "deploy", "--to", "bench").all())
          .contains("'sh db/lights.sh up' ended with 3", "lights.sh", "(hidden)")
          .contains("and its undo failed: 'sh db/lights.sh down' ended with 3")
          .doesNotContain(Workshop.DATABASE_PASSWORD);
      assertThat(Files.readString(workshop.server.resolveSibling("told")))
          .isEqualTo(
              "up %1$s %2$s\ndown %1$s %2$s\n".formatted(Workshop.DATABASE_PASSWORD, postgres.url));
    }
  }

  /** A relative file in a URL starts from a folder that its first delivery makes. */
  @Test
  void aServiceHasThemAppliedWhereItWorks() throws IOException {
    workshop.ok("server", "new", "solo", "--kind", "service");
    workshop
        .edit("jdbc:h2:file:./data/spokes", "jdbc:h2:file:./data/spokes;AUTO_SERVER=TRUE")
        .edit(
            "[[check]]\nname = \"the front page shows",
            "[[before]]\nsql = \"db/1.sql\"\n\n[[check]]\nname = \"the front page shows");
    script("1.sql", "CREATE TABLE colour (n INT)");
    try {
      workshop.ok("deploy", "--to", "solo");
      assertThat(workshop.ok("deploy", "--to", "solo")).contains("Unchanged");
      assertThat(workshop.server.resolveSibling("solo/data")).doesNotExist();
    } finally {
      workshop.ok("server", "stop", "solo");
    }
  }

  /** What was begun goes on for a while when whoever began it was killed. */
  @Test
  void oneThatIsStillAppliedIsWaitedForBeforeItIsUndone() throws Exception {
    try (Postgres postgres = new Postgres();
        Connection holder = DriverManager.getConnection(postgres.url)) {
      holder.createStatement().execute("SELECT pg_advisory_lock(7)");
      describe(
          "right",
          postgres.url,
          org.postgresql.Driver.class,
          "[[before]]\nsql = \"db/1.sql\"\nundo = \"db/undo.sql\"\n");
      script("1.sql", "CREATE TABLE lamp (n INT); SELECT pg_advisory_lock(7)");
      script("undo.sql", "DROP TABLE lamp");
      Path out = folder.resolve("out");
      Path err = folder.resolve("err");
      Process killed = workshop.program.start(out, err, "deploy", "--to", "bench");
      String waits =
          "SELECT COUNT(*) FROM pg_stat_activity WHERE wait_event_type = 'Lock'"
              + " AND query LIKE 'SELECT pg_advisory_lock%'";
      until(() -> postgres.value(waits).equals("1"));
      killed.destroyForcibly().waitFor();
      Process recovers = workshop.program.start(out, err, "recover", "--on", "bench");
      until(() -> Files.readString(err).contains("waiting for 'db/1.sql' to end"));
      holder.close();
      assertThat(recovers.waitFor()).isZero();
      assertThat(Files.readString(out)).contains("Taken back");
      assertThat(postgres.value(TABLES.formatted("LAMP"))).isEqualTo("0");
      assertThat(postgres.value("SELECT COUNT(*) FROM jolly_scripts")).isEqualTo("0");
    }
  }

  /** Two at once on one database: the second is refused, and takes nothing of the first back. */
  @Test
  void whatAnotherDeliveryAppliedStays() throws Exception {
    String http = "" + Workshop.freePort();
    workshop.ok("server", "new", "rack", "--http", http, "--admin", "" + Workshop.freePort());
    try (Postgres postgres = new Postgres();
        Connection holder = DriverManager.getConnection(postgres.url)) {
      holder.createStatement().execute("SELECT pg_advisory_lock(7)");
      describe(
          "right",
          postgres.url,
          org.postgresql.Driver.class,
          "[[before]]\nsql = \"db/1.sql\"\nundo = \"db/undo.sql\"\n");
      script("1.sql", "CREATE TABLE lamp (n INT); SELECT pg_advisory_lock(7)");
      script("undo.sql", "DROP TABLE lamp");
      Path out = folder.resolve("out");
      Process first = workshop.program.start(out, folder.resolve("err"), "deploy", "--to", "bench");
      String waits = "SELECT COUNT(*) FROM pg_stat_activity WHERE wait_event_type = 'Lock'";
      until(() -> postgres.value(waits).equals("1"));
      Path refused = folder.resolve("refused");
      Process second =
          workshop.program.start(refused, folder.resolve("err2"), "deploy", "--to", "rack");
      until(() -> postgres.value(waits).equals("2") || !second.isAlive());
      holder.close();
      assertThat(second.waitFor()).as(Files.readString(refused)).isEqualTo(5);
      assertThat(Files.readString(refused))
          .contains("another delivery works on it, or has just done so");
      assertThat(first.waitFor()).as(Files.readString(out)).isZero();
      assertThat(postgres.value(TABLES.formatted("LAMP"))).isEqualTo("1");
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
    } finally {
      workshop.ok("server", "stop", "rack");
    }
  }

  private static void until(Callable<Boolean> so) throws Exception {
    long end = System.nanoTime() + LIMIT_NANOS;
    while (!so.call()) {
      assertThat(System.nanoTime()).isLessThan(end);
      LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20));
    }
  }
}
