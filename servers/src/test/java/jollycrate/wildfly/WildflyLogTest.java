package jollycrate.wildfly;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import jollycrate.hosting.Logged;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;
import org.junit.jupiter.api.Test;

/** By records as a WildFly 39 writes them. */
class WildflyLogTest {
  private static final String HEAD = "2026-11-30 20:35:04,714 ";
  private static final String BEGINS = server("WFLYSRV0027: Starting deployment of \"%s\"");
  private static final String DEPLOYED = server("WFLYSRV0010: Deployed \"%s\"");
  private static final String REPLACED =
      server("WFLYSRV0016: Replaced deployment \"%1$s\" with deployment \"%1$s\"");
  private static final String UNDEPLOYED = server("WFLYSRV0009: Undeployed \"%s\"");
  private static final String FAILED =
      HEAD
          + "ERROR [org.jboss.msc.service.fail] (ServerService Thread Pool -- 77) MSC000001: Failed"
          + " to start service jboss.deployment.unit.\"%s\".undertow-deployment:"
          + " org.jboss.msc.service.StartException: java.lang.IllegalStateException: no tyres\n"
          + "Caused by: java.lang.RuntimeException: java.lang.IllegalStateException: no tyres\n"
          + "\tat io.undertow.servlet@2.3.23.Final//io.undertow.servlet.core.A.deploy(A.java:258)\n"
          + "Caused by: java.lang.IllegalStateException: no tyres\n"
          + "\tat deployment.bell.war//shop.Throws.contextInitialized(Throws.java:4)\n"
          + "\t... 9 more\n";

  private static String server(String message) {
    return HEAD + "INFO  [org.jboss.as.server] (ServerService Thread Pool -- 7) " + message + "\n";
  }

  private static String bell(String... records) {
    return String.join("", records).formatted("bell.war", "bell.war");
  }

  @Test
  void itIsUpWhenItWasDeployedAndNothingOfItFailed() {
    assertThat(up(bell(BEGINS))).isInstanceOf(Sign.Waiting.class);
    assertThat(up(bell(BEGINS) + bell(DEPLOYED))).isInstanceOf(Sign.Reached.class);
    assertThat(up(bell(BEGINS) + bell(REPLACED))).isInstanceOf(Sign.Reached.class);
    String other = (BEGINS + DEPLOYED).formatted("bells.war", "bells.war");
    assertThat(up(other)).isInstanceOf(Sign.Waiting.class);
  }

  /** It says that it deployed what failed, too. */
  @Test
  void whatFailedBeforeItWasDeployedIsTold() {
    assertThat(up(bell(BEGINS) + bell(FAILED) + bell(REPLACED)))
        .isInstanceOfSatisfying(
            Sign.Failed.class,
            failed -> {
              assertThat(failed.cause().what())
                  .isEqualTo("listener shop.Throws threw IllegalStateException: no tyres");
              assertThat(failed.cause().where())
                  .isEqualTo("shop.Throws.contextInitialized(Throws.java:4)");
              assertThat(failed.cause().why()).contains("bell.war did not start");
            });
    String mended = bell(BEGINS) + bell(FAILED) + bell(REPLACED) + bell(BEGINS) + bell(REPLACED);
    assertThat(up(mended)).isInstanceOf(Sign.Reached.class);
  }

  @Test
  void whatItAsksForAndIsNotThereIsTold() {
    String lacks =
        HEAD
            + "ERROR [org.jboss.as.controller] (Thread-7) WFLYCTL0013: Operation"
            + " (\"full-replace-deployment\") failed - address: ([]) - failure description: {\n"
            + "    \"WFLYCTL0412: Required services that are not installed:\" =>"
            + " [\"jboss.naming.context.java.jboss.java:jdbc.other\"],\n"
            + "    \"WFLYCTL0180: Services with missing/unavailable dependencies\" => [\n"
            + "        \"service jboss.persistenceunit.\\\"%s#desk\\\" is missing [jboss.naming]\"\n"
            + "    ]\n}\n";
    assertThat(up(bell(BEGINS) + bell(lacks) + bell(REPLACED)))
        .isInstanceOfSatisfying(
            Sign.Failed.class,
            failed ->
                assertThat(failed.cause().what())
                    .isEqualTo("nothing is there by the name java:jdbc/other"));
  }

  @Test
  void whatWasLoggedBeforeThisReleaseDoesNotCount() {
    String earlier = bell(BEGINS) + bell(DEPLOYED);
    assertThat(up(earlier, earlier.length(), Duration.ofSeconds(9)))
        .isInstanceOf(Sign.Waiting.class);
    String late = bell(BEGINS);
    assertThat(up(late + bell(DEPLOYED), late.length(), Duration.ofSeconds(1)))
        .isInstanceOf(Sign.Waiting.class);
    String hanging = bell(BEGINS);
    assertThat(up(hanging, hanging.length(), Duration.ofSeconds(9)))
        .isInstanceOf(Sign.Failed.class);
  }

  @Test
  void itIsGoneWhenTheServerSaysSoOrNeverLookedAtIt() {
    assertThat(gone(bell(UNDEPLOYED), Duration.ZERO)).isInstanceOf(Sign.Reached.class);
    assertThat(gone("", Duration.ZERO)).isInstanceOf(Sign.Waiting.class);
    assertThat(gone("", Duration.ofSeconds(3))).isInstanceOf(Sign.Reached.class);
  }

  /** Behind the name of a class it says in which module it was looked for. */
  @Test
  void aMissingClassIsCalledByItsName() {
    String log =
        bell(BEGINS)
            + bell(FAILED)
                .replace(
                    "Caused by: java.lang.IllegalStateException: no tyres",
                    "Caused by: java.lang.ClassNotFoundException: shop.Pump from [Module"
                        + " \"deployment.bell.war\" from Service Module Loader]")
            + bell(DEPLOYED);
    assertThat(up(log))
        .isInstanceOfSatisfying(
            Sign.Failed.class,
            failed -> assertThat(failed.cause().what()).isEqualTo("class shop.Pump is missing"));
  }

  private static Sign up(String log) {
    return up(log, 0, Duration.ofSeconds(1));
  }

  private static Sign up(String log, int fresh, Duration since) {
    return sign(Expected.UP, log, fresh, since);
  }

  private static Sign gone(String log, Duration since) {
    return sign(Expected.GONE, log, 0, since);
  }

  private static Sign sign(Expected expected, String log, int fresh, Duration since) {
    Placement bell = Logged.bell("d", "/srv/bench/deployments/bell.war");
    return new WildflyLog(log, bell).sign(expected, Logged.evidence(log, fresh, since));
  }
}
