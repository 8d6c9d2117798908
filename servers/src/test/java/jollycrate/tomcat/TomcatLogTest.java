package jollycrate.tomcat;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import jollycrate.host.Fact;
import jollycrate.host.Life;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;
import jollycrate.trace.LoggedFailure;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What Tomcat's log says of one placement, and of no other. */
class TomcatLogTest {
  private static final Path SWITCH = Path.of("/srv/b/conf/Catalina/localhost/shop.xml");
  private static final Placement SHOP =
      new Placement(
          new Placement.Release("shop", "1", "d", List.of("shop", "shop.desk")),
          new Placement.Route(
              "main", "/shop", URI.create("http://h/shop/"), URI.create("http://h/shop/")),
          SWITCH,
          Placement.Made.NOTHING,
          new Placement.Timing(Duration.ofSeconds(3), Duration.ofSeconds(60)));
  private static final String BEGUN =
      line("INFO", "HostConfig.deployDescriptor Deploying deployment descriptor [" + SWITCH + "]");
  private static final String ENDED =
      line(
          "INFO",
          "HostConfig.deployDescriptor Deployment of deployment descriptor ["
              + SWITCH
              + "] has finished in [67] ms");
  private static final String OTHER =
      BEGUN.replace("shop.xml", "other.xml") + ENDED.replace("shop.xml", "other.xml");
  private static final String FAILED =
      line(
          "SEVERE",
          "StandardContext.startInternal Context [/shop] startup failed due to previous errors");
  private static final String DROPPED =
      line("INFO", "HostConfig.undeploy Undeploying context [/shop]");

  private static String line(String level, String text) {
    return "23-Nov-2026 08:00:00.123 "
        + level
        + " [main] org.apache.catalina.startup."
        + text
        + "\n";
  }

  private static Evidence evidence(String log, int fresh, int seconds, boolean alive) {
    return evidence(log, fresh, seconds, alive, log);
  }

  private static Evidence evidence(
      String log, int fresh, int seconds, boolean alive, String output) {
    return new Evidence(
        log,
        fresh,
        Duration.ofSeconds(seconds),
        false,
        alive ? Life.RUNS : Life.GONE,
        Fact.known(alive),
        Set.of(),
        Duration.ZERO,
        output,
        Evidence.Made.NOTHING);
  }

  private static String sign(Expected expected, Evidence evidence) {
    Sign sign = new TomcatLog(evidence.log()).sign(SHOP, expected, evidence);
    return sign.getClass().getSimpleName();
  }

  @Test
  void upIsAStartThatWasSeenFromItsBeginning() {
    assertThat(sign(Expected.UP, evidence("", 0, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(OTHER, 0, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(BEGUN, 0, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(BEGUN + ENDED, 0, 1, true))).isEqualTo("Reached");
    assertThat(sign(Expected.UP, evidence(BEGUN + FAILED + ENDED, 0, 1, true))).isEqualTo("Failed");
    assertThat(sign(Expected.UP, evidence(BEGUN + ENDED, 0, 1, false))).isEqualTo("Failed");
  }

  /** Tomcat warns in the same words about an exploded folder that it finds when it starts. */
  @Test
  void aWarningAboutAFolderIsNoEndOfTheStart() {
    String warning =
        line(
            "WARNING",
            "HostConfig.deployDescriptor Deployment of deployment descriptor ["
                + SWITCH
                + "] with an external docBase means the directory [webapps/shop] will be ignored");
    assertThat(sign(Expected.UP, evidence(BEGUN + warning, 0, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(BEGUN + warning + FAILED + ENDED, 0, 1, true)))
        .isEqualTo("Failed");
  }

  @Test
  void whatBeganBeforeTheSwitchBackTellsNothing() {
    int fresh = BEGUN.length();
    assertThat(sign(Expected.UP, evidence(BEGUN + ENDED, fresh, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(BEGUN + ENDED + BEGUN + ENDED, fresh, 1, true)))
        .isEqualTo("Reached");
    assertThat(sign(Expected.UP, evidence(BEGUN, fresh, 1, true))).isEqualTo("Waiting");
    assertThat(sign(Expected.UP, evidence(BEGUN, fresh, 6, true))).isEqualTo("Failed");
  }

  @ParameterizedTest
  @CsvSource({
    "'', 1, Waiting",
    "'', 4, Reached",
    "D, 1, Reached",
    "B, 9, Waiting",
    "BE, 9, Waiting",
    "BED, 1, Reached",
    "DB, 1, Reached",
    "DBBD, 1, Reached",
    "DBB, 1, Waiting"
  })
  void goneIsAsManyEndsAsBeginnings(String lines, int seconds, String expected) {
    StringBuilder log = new StringBuilder();
    for (char c : lines.toCharArray()) {
      log.append(c == 'B' ? BEGUN : c == 'E' ? ENDED : DROPPED);
    }
    assertThat(sign(Expected.GONE, evidence(log.toString(), 0, seconds, true))).isEqualTo(expected);
  }

  private static final String NOT_LOADED =
      line(
          "SEVERE",
          "StandardContext.loadOnStartup Servlet [desk] in web application [/shop] threw load()"
              + " exception");

  @Test
  void aServletThatCouldNotBeLoadedIsNoSuccessWhereverThatIsLogged() {
    String trace = "\tjava.lang.IllegalStateException: no desk\n";
    String here = BEGUN + NOT_LOADED + trace + ENDED;
    assertThat(sign(Expected.UP, evidence(here, 0, 1, true))).isEqualTo("Failed");
    String log = BEGUN + ENDED;
    Evidence elsewhere = evidence(log, 0, 1, true, log + NOT_LOADED + trace);
    Sign.Failed failed = (Sign.Failed) new TomcatLog(log).sign(SHOP, Expected.UP, elsewhere);
    assertThat(failed.cause().what()).isEqualTo("IllegalStateException: no desk");
    assertThat(failed.cause().logPosition()).isEqualTo(log.length());
    String others = NOT_LOADED.replace("/shop", "/other");
    assertThat(sign(Expected.UP, evidence(log, 0, 1, true, log + others))).isEqualTo("Reached");
  }

  @Test
  void whatDidNotStartWhenItWasStartedLastIsDown() {
    assertThat(new TomcatLog(BEGUN + FAILED + ENDED).down(SHOP, "bench")).isPresent();
    assertThat(new TomcatLog(BEGUN + FAILED + ENDED + BEGUN + ENDED).down(SHOP, "bench")).isEmpty();
    assertThat(new TomcatLog(BEGUN).down(SHOP, "bench")).isEmpty();
    assertThat(new TomcatLog(OTHER).down(SHOP, "bench")).isEmpty();
  }

  private static Cause cause(String log) {
    return new LoggedFailure(new TomcatFormat(), List.of("shop", "shop.desk"))
        .in(log, 100)
        .orElseThrow();
  }

  private static String severe(String message, String... rest) {
    return line("INFO", "X.y before") + line("SEVERE", message) + String.join("\n", rest) + "\n";
  }

  @Test
  void theInnermostExceptionAndTheOwnFrameAreFound() {
    Cause cause =
        cause(
            severe(
                "StandardContext.listenerStart Exception sending context initialized event to"
                    + " listener instance of class [shop.desk.Start]",
                "\tjava.lang.IllegalStateException: outer",
                "\t\tat shop.desk.Start.contextInitialized(Start.java:9)",
                "\t\tat org.apache.catalina.core.StandardContext.listenerStart(StandardContext.java:1)",
                "\tCaused by: java.sql.SQLException: inner",
                "\t\tat org.h2.Driver.connect(Driver.java:1)",
                "\t\tat app//shop.Store.open(Store.java:42)",
                "\t\t... 3 more"));
    assertThat(cause.what()).isEqualTo("listener shop.desk.Start threw SQLException: inner");
    assertThat(cause.where()).isEqualTo("shop.Store.open(Store.java:42)");
    assertThat(cause.why()).contains("IllegalStateException: outer", "SQLException: inner");
    assertThat(cause.logPosition()).isEqualTo(100 + line("INFO", "X.y before").length());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          java.lang.NoClassDefFoundError: shop/Pump | class shop.Pump is missing
          java.lang.ClassNotFoundException: org.h2.Driver | class org.h2.Driver is missing
          java.lang.NoClassDefFoundError: Could not initialize class shop.Pump | could not be set up
          java.lang.NoClassDefFoundError: shop/Pump (wrong name: Pump) | (wrong name: Pump)
          java.lang.NoClassDefFoundError: javax/servlet/Filter | made for javax.servlet
          java.lang.ClassCastException: class a.B cannot be cast to class jakarta.servlet.Filter (x) | made for javax.servlet
          java.lang.ClassNotFoundException: javax.xml.bind.JAXBException | no longer since release 11
          java.lang.UnsupportedClassVersionError: x has 69.0 | compiled for a newer Java
          java.net.BindException: Address already in use | a port of the server is taken (8080)
          org.xml.sax.SAXParseException; x: y | a descriptor
          java.lang.OutOfMemoryError: Java heap space | it ran out of memory (Java heap space)
          java.net.ConnectException: Connection refused | the database does not answer
          java.util.zip.ZipException: zip END header not found | an archive cannot be read
          """)
  void whatAnExceptionMeansIsSaid(String exception, String meaning) {
    String log = severe("X.y Failed to initialize [Connector[\"http-nio-8080\"]]", exception);
    Cause cause =
        cause(
            log.replace(
                "SAXParseException; x: y",
                "SAXParseException: lineNumber: 3; columnNumber: 5; bad"));
    assertThat(cause.what()).contains(meaning);
    assertThat(cause.next()).isNotEmpty();
  }

  @Test
  void aJavaThatDidNotStartIsQuoted() {
    assertThat(cause("Error occurred during initialization of VM\nToo small maximum heap\n").what())
        .isEqualTo("Error occurred during initialization of VM Too small maximum heap");
    assertThat(cause(DROPPED + "Error occurred\nToo small maximum heap\n").what())
        .isEqualTo("Error occurred Too small maximum heap");
    assertThat(new LoggedFailure(new TomcatFormat(), List.of()).in("", 0)).isEmpty();
  }

  @Test
  void whatTheProcessBeforeSaidAtItsEndIsNoCause() {
    String before =
        "01-Dec-2026 10:00:00.000 SEVERE [main] a.B.c it stops\n"
            + "java.lang.IllegalStateException: stopped already\n\tat a.B.c(B.java:1)\n";
    String now = "Error occurred during initialization of VM\nToo small maximum heap\n";
    Cause cause =
        new LoggedFailure(new TomcatFormat(), List.of()).ended(before + now, before.length());
    assertThat(cause.what()).contains("Too small maximum heap").doesNotContain("stopped already");
    assertThat(cause.logPosition()).isEqualTo(before.length());
  }
}
