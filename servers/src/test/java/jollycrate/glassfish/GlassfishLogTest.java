package jollycrate.glassfish;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import jollycrate.hosting.Logged;
import jollycrate.server.Expected;
import jollycrate.server.Sign;
import org.junit.jupiter.api.Test;

/** By records as a GlassFish 7.0.21 writes them. */
class GlassfishLogTest {
  private static final String FOLDER = "/srv/bench/state/../deployments/";
  private static final String BEGINS = info("Selecting file " + FOLDER + "%s for autodeployment");
  private static final String UP =
      info("[AutoDeploy] Successfully autodeployed : " + FOLDER + "%s.");
  private static final String FAILED =
      info("[AutoDeploy] Autodeploy failed : " + FOLDER + "%s.").replace("INFO", "WARNING");
  private static final String GONE =
      info("[AutoDeploy] Successfully autoundeployed : " + FOLDER + "%s.");
  private static final String THROWN =
      record("SEVERE", "Exception during cleanup after start failed")
              .replace(
                  "|#]", "\njava.lang.NegativeArraySizeException: -1\n\tat a.B.c(B.java:1)\n|#]")
          + record("SEVERE", "ContainerBase.addChild: start: ")
              .replace(
                  "|#]",
                  "\norg.apache.catalina.LifecycleException: java.lang.IllegalStateException: no"
                      + " tyres\n\tat org.apache.catalina.core.StandardContext.start(StandardContext.java:5)\n"
                      + "Caused by: java.lang.IllegalStateException: no tyres\n"
                      + "\tat shop.Throws.contextInitialized(Throws.java:4)\n\t... 33 more\n|#]");

  private static String info(String message) {
    return record("INFO", message);
  }

  private static String record(String level, String message) {
    return "[#|2026-12-01T00:36:00.902693Z|"
        + level
        + "|GF 7.0.21|jakarta.enterprise.system.core|_MessageID=NCLS-1;|"
        + message
        + "|#]\n\n";
  }

  private static String bell(String record) {
    return record.formatted("bell.war");
  }

  @Test
  void itIsUpWhenAStartEndsThatBeganSinceThen() {
    assertThat(up(bell(BEGINS), 0)).isInstanceOf(Sign.Waiting.class);
    assertThat(up(bell(BEGINS) + bell(UP), 0)).isInstanceOf(Sign.Reached.class);
    assertThat(up(bell(BEGINS) + bell(UP), bell(BEGINS).length()))
        .isInstanceOf(Sign.Unnoticed.class);
    assertThat(up((BEGINS + UP).formatted("bells.war", "bells.war"), 0))
        .isInstanceOf(Sign.Unnoticed.class);
  }

  @Test
  void whatItHasNotBegunWhenItIsAtRestItMayHaveOverlooked() {
    String failed = bell(BEGINS) + bell(FAILED);
    assertThat(up(failed, failed.length())).isInstanceOf(Sign.Unnoticed.class);
    assertThat(up(failed + bell(BEGINS), failed.length())).isInstanceOf(Sign.Waiting.class);
    String again = failed + bell(BEGINS);
    assertThat(up(again, again.length())).isInstanceOf(Sign.Waiting.class);
  }

  @Test
  void aStartAtAFileThatHadGoneIsNoFailure() {
    String absent = bell(BEGINS) + info("File not found : " + FOLDER + "bell.war") + bell(FAILED);
    assertThat(up(absent, 0)).isInstanceOf(Sign.Waiting.class);
    assertThat(up(absent + bell(BEGINS) + bell(FAILED), 0)).isInstanceOf(Sign.Failed.class);
  }

  /** What fails because something failed is logged before it. */
  @Test
  void theCauseIsToldAndNotItsAftermath() {
    assertThat(up(bell(BEGINS) + THROWN + bell(FAILED), 0))
        .isInstanceOfSatisfying(
            Sign.Failed.class,
            failed -> {
              assertThat(failed.cause().what())
                  .isEqualTo("listener shop.Throws threw IllegalStateException: no tyres");
              assertThat(failed.cause().where())
                  .isEqualTo("shop.Throws.contextInitialized(Throws.java:4)");
            });
  }

  @Test
  void itIsGoneWhenTheServerSaysSo() {
    assertThat(sign(Expected.GONE, bell(GONE), 0)).isInstanceOf(Sign.Reached.class);
    assertThat(sign(Expected.GONE, "", 0)).isInstanceOf(Sign.Waiting.class);
    assertThat(gone("")).isInstanceOf(Sign.Reached.class);
    assertThat(gone(bell(BEGINS))).isInstanceOf(Sign.Waiting.class);
    assertThat(gone(bell(BEGINS) + bell(FAILED))).isInstanceOf(Sign.Reached.class);
    String late = bell(BEGINS);
    assertThat(sign(Expected.GONE, late + bell(FAILED), late.length()))
        .isInstanceOf(Sign.Failed.class);
  }

  private static Sign gone(String log) {
    return sign(Expected.GONE, log, log.length(), Duration.ofSeconds(9));
  }

  private static Sign up(String log, int fresh) {
    return sign(Expected.UP, log, fresh);
  }

  private static Sign sign(Expected expected, String log, int fresh) {
    return sign(expected, log, fresh, Duration.ofSeconds(1));
  }

  private static Sign sign(Expected expected, String log, int fresh, Duration since) {
    return new GlassfishLog(log, Logged.bell("d", "/srv/bench/deployments/bell.war"))
        .sign(expected, Logged.evidence(log, fresh, since));
  }
}
