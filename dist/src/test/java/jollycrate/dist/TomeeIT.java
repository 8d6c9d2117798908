package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What only a server with an enterprise part does. */
class TomeeIT {
  private static final String ASKS =
      "<resource-ref><res-ref-name>java:app/jdbc/ledger</res-ref-name>"
          + "<res-type>javax.sql.DataSource</res-type></resource-ref>";

  @TempDir Path folder;

  /** It would give another one that it has, and the application would work on it. */
  @Test
  void aDataSourceThatNobodyMeantIsRefused() throws IOException {
    Line line = Line.TOMEE;
    assumeTrue(Files.isRegularFile(line.archive()), "not fetched");
    Path war =
        Wars.with(folder, ASKS).entry("index.html", "it works on the wrong one").write("asks.war");
    try (Workshop workshop = line.open(folder)) {
      Files.writeString(
          workshop.folder.resolve("jolly.toml"),
          "name = \"asks\"\nartifact = \"%s\"\n[datasource.\"jdbc/bikes\"]\n".formatted(war)
              + "url = \"jdbc:h2:mem:bikes\"\ndriver = \"drivers/h2.jar\"\n");
      workshop.ok("server", "start", "bench");
      Trace before = workshop.trace();
      assertThat(workshop.ends(5, "deploy", "--to", "bench").out())
          .contains(
              "Failed: the application asks for 'java:app/jdbc/ledger',"
                  + " and the server gives it another: jdbc/bikes")
          .contains("Describe [datasource.\"jdbc/ledger\"]", "Taken back");
      workshop.trace().isAs(before);
      Wars.empty(folder)
          .entry("WEB-INF/web.xml", "<web-app metadata-complete=\"true\">" + ASKS + "</web-app>")
          .entry(
              "WEB-INF/classes/META-INF/persistence.xml",
              "<persistence><persistence-unit name=\"bikes\"><jta-data-source>jdbc/bikes"
                  + "</jta-data-source></persistence-unit></persistence>")
          .write("asks.war");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("says nothing of it where WEB-INF/web.xml is metadata-complete")
          .contains("gives a persistence unit a database of its own making");
      workshop.trace().isAs(before);
    }
  }
}
