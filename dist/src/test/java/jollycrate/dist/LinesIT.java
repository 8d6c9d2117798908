package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What holds on one line of Tomcat holds on each. */
class LinesIT {
  /** Every character that XML, properties or Tomcat itself reads in another way. */
  private static final String PASSWORD = "a&<\"' x ü";

  @TempDir Path folder;

  @ParameterizedTest
  @MethodSource("jollycrate.dist.Line#here")
  void deliveredTwiceReplacedAndGoneWithoutATrace(Line line) throws IOException {
    try (Workshop workshop = line.open(folder)) {
      workshop.program.with("SPOKES_DB_PASSWORD", PASSWORD);
      Trace before = workshop.trace();
      assertThat(workshop.ok("deploy", "--to", "bench")).contains(line.label());
      String process = workshop.process();
      Trace stands = workshop.trace();
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
      assertThat(workshop.process()).isEqualTo(process);
      workshop.trace().isAs(stands);
      assertThat(workshop.ok("apps", "--on", "bench"))
          .containsPattern(line.label() + "[.\\d]*, pid " + process.split(" ")[0])
          .containsPattern("/spokes +spokes 1.4.0 +STARTED +200 +\\d+ sessions? +jdbc/spokes \\d");
      workshop.trace().isAs(stands);
      deliver(workshop, answering(line, "one"));
      assertThat(workshop.page("/bell/")).isEqualTo("200 one");
      deliver(workshop, answering(line, "two"));
      assertThat(workshop.page("/bell/")).isEqualTo("200 two");
      workshop.ok("undeploy", "bell", "--from", "bench");
      assertThat(workshop.process()).isEqualTo(process);
      workshop.trace().isAs(stands);
      workshop.ok("undeploy", "--from", "bench");
      workshop.trace().isAs(before);
    }
  }

  private Path answering(Line line, String text) throws IOException {
    return Wars.empty(Files.createTempDirectory(folder, "bell"))
        .using(line.namespace)
        .source("Bell", annotated(text))
        .write("bell.war");
  }

  private static String annotated(String text) {
    return "@jakarta.servlet.annotation.WebServlet(\"\")\n"
        + Wars.servletSource("Bell", "response.getWriter().print(\"" + text + "\");");
  }

  private static String deliver(Workshop workshop, Path war) {
    return workshop.ok("deploy", war.toString(), "--undescribed", "--to", "bench");
  }

  @ParameterizedTest
  @MethodSource("jollycrate.dist.Line#some")
  void whatCannotWorkIsRefusedAndWhatFailsIsTakenBack(Line line) throws IOException {
    Path throwing = failing(line, "Throws", "throw new IllegalStateException(\"no tyres\");");
    Path lacking = failing(line, "Lacks", "new Pump();");
    Path unknown =
        Wars.with(
                folder,
                "<servlet-mapping><servlet-name>ghost</servlet-name>"
                    + "<url-pattern>/ghost</url-pattern></servlet-mapping>")
            .write("unknown.war");
    Path foreign =
        Wars.empty(folder)
            .using(line.otherNamespace())
            .source("Bell", annotated("never"))
            .write("foreign.war");
    byte[] whole = Files.readAllBytes(throwing);
    Path torn = Files.write(folder.resolve("torn.war"), Arrays.copyOf(whole, whole.length * 2 / 3));
    try (Workshop workshop = line.open(folder)) {
      deliver(workshop, answering(line, "one"));
      Trace stands = workshop.trace();
      assertThat(ends(workshop, 5, throwing))
          .contains("Failed: listener shop.Throws threw IllegalStateException: no tyres")
          .contains("at    shop.Throws.contextInitialized(Throws.java:4)")
          .contains("told in logs/server.log:")
          .contains("Taken back: bench is as it was");
      assertThat(ends(workshop, 5, lacking))
          .contains("Failed: class shop.Pump is missing")
          .contains("at    shop.Lacks.contextInitialized(Lacks.java:4)")
          .contains("fix   Add the library that holds it to WEB-INF/lib");
      assertThat(ends(workshop, 5, unknown)).contains("unknown servlet name [ghost]");
      assertThat(ends(workshop, 4, foreign))
          .contains("it is made for " + line.otherNamespace() + ".servlet, and ")
          .contains("offers " + line.namespace + ".servlet")
          .contains("seen  WEB-INF/classes/shop/Bell.class");
      assertThat(ends(workshop, 4, torn)).contains("Cannot read '" + torn + "' as an archive");
      workshop.trace().isAs(stands);
      assertThat(workshop.page("/bell/")).isEqualTo("200 one");
    }
  }

  private static String ends(Workshop workshop, int exit, Path war) {
    return workshop.ends(exit, "deploy", war.toString(), "--undescribed", "--to", "bench").all();
  }

  private Path failing(Line line, String name, String statement) throws IOException {
    return Wars.with(folder, Wars.listener(name))
        .using(line.namespace)
        .source(name, Wars.listenerSource(name, statement) + "class Pump {}\n", "Pump.class")
        .write(name.toLowerCase(Locale.ROOT) + ".war");
  }

  /** It would give another one that it has, and the application would work on it. */
  @Test
  void aDataSourceThatNobodyMeantIsRefused() throws IOException {
    Line line = Line.TOMEE;
    assumeTrue(Files.isRegularFile(line.archive()), "not fetched");
    Path war =
        Wars.with(
                folder,
                "<resource-ref><res-ref-name>java:app/jdbc/ledger</res-ref-name>"
                    + "<res-type>javax.sql.DataSource</res-type></resource-ref>")
            .entry("index.html", "it works on the wrong one")
            .write("asks.war");
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
    }
  }
}
