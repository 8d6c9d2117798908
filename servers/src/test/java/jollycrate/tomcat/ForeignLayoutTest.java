package jollycrate.tomcat;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import jollycrate.server.Cause;
import jollycrate.trace.LoggedFailure;
import org.junit.jupiter.api.Test;

/** An application that brings a layout of its own for logs does not hide why it failed. */
class ForeignLayoutTest {
  private static final String OURS =
      "01-Dec-2026 12:00:00.000 INFO [main] org.apache.catalina.startup.HostConfig.deploy begins\n";
  private static final String TRACE =
      """
      java.lang.IllegalStateException: no tyres
      \tat shop.Start.contextInitialized(Start.java:4)
      \tat org.apache.catalina.core.StandardContext.listenerStart(StandardContext.java:9)
      """;
  private static final String END =
      "01-Dec-2026 12:00:01.000 SEVERE [main] org.apache.catalina.core.StandardContext.start"
          + " Context [/shop] startup failed due to previous errors\n";

  private static Cause cause(String log) {
    return new LoggedFailure(new TomcatFormat(), List.of("shop")).in(log, 0).orElseThrow();
  }

  private static void isFound(String log) {
    assertThat(cause(log).what()).contains("IllegalStateException: no tyres");
    assertThat(cause(log).where()).isEqualTo("shop.Start.contextInitialized(Start.java:4)");
  }

  @Test
  void twoLinesOfTheJdksOwnLayout() {
    isFound(
        OURS
            + "Dec 01, 2026 12:00:00 PM org.apache.catalina.core.StandardContext listenerStart\n"
            + "SEVERE: Exception sending context initialized event to listener\n"
            + TRACE
            + END);
  }

  @Test
  void anyOtherLayoutInTheMiddle() {
    isFound(OURS + "12:00:00.123 [main] ERROR shop.Start - it failed\n" + TRACE + END);
  }

  @Test
  void noKnownLayoutAtAll() {
    isFound("starting\n" + TRACE);
  }

  @Test
  void aClassOfAnotherServerIsNoLibrary() {
    assertThat(
            cause(
                    OURS
                        + END
                        + "x ERROR\njava.lang.NoClassDefFoundError: org/eclipse/jetty/server/Server\n\tat shop.A.b(A.java:1)\n")
                .what())
        .contains("it is part of a Jetty itself");
  }
}
