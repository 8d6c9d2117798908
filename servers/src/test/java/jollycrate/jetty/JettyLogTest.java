package jollycrate.jetty;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import jollycrate.host.Fact;
import jollycrate.host.Life;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;
import org.junit.jupiter.api.Test;

/** What Jetty's log says of one placement, and of no other. */
class JettyLogTest {
  private static final Path WORK = Path.of("/srv/b/work");
  private static final Placement SHOP = placement("shop-2222", "main");
  private static final String CONTEXT =
      "oeje10w.WebAppContext@5d5ca91{Shop,/shop,b=file:///srv/b/work/shop-2222/webapp/,"
          + "a=AVAILABLE,vh=[@main],h=oeje10s.SessionHandler@55fd0b6b{STARTED}}{/srv/b/shop.war}";
  private static final String BEGUN = line("INFO", "oejsh.ContextHandler", "Started " + CONTEXT);
  private static final String UP =
      line("INFO", "oeje10s.ServletContextHandler", "Started " + CONTEXT);
  private static final String UP_JAVAX =
      line(
          "INFO",
          "oejsh.ContextHandler",
          "Started oeje8n.ContextHandler$CoreContextHandler@4b41dd5c{Shop,/shop,"
              + "b=file:///srv/b/work/shop-2222/webapp/,a=AVAILABLE,vh=[@main],h=x}");
  private static final String FAILED =
      line("WARN", "oeje10w.WebAppContext", "Failed startup of context " + CONTEXT)
          + "java.lang.IllegalStateException: no tyres\n"
          + "\tat shop.Start.contextInitialized(Start.java:4)\n"
          + "\tat org.eclipse.jetty.ee10.servlet.ServletContextHandler.doStart(X.java:1071)\n";
  private static final String NOT_AVAILABLE = UP.replace("a=AVAILABLE", "a=UNAVAILABLE");

  private static Placement placement(String unpacked, String listener) {
    return new Placement(
        new Placement.Release("shop", "1", "d", List.of("shop")),
        new Placement.Route(
            listener, "/shop", URI.create("http://h/shop/"), URI.create("http://h/shop/")),
        Path.of("/srv/b/webapps/shop.xml"),
        Placement.Made.of(List.of(WORK.resolve(unpacked))),
        new Placement.Timing(Duration.ofSeconds(3), Duration.ofSeconds(60)));
  }

  private static String line(String level, String source, String message) {
    return "2026-11-27 10:04:22.138:" + level + " :" + source + ":Scanner-0-1: " + message + "\n";
  }

  private static Sign sign(Placement placement, Expected expected, String log, int fresh) {
    Evidence evidence =
        new Evidence(
            log,
            fresh,
            Duration.ofSeconds(1),
            false,
            Life.RUNS,
            Fact.known(true),
            Set.of(),
            Duration.ZERO,
            log,
            Evidence.Made.NOTHING);
    return new JettyLog(log, placement).sign(expected, evidence);
  }

  private static Sign up(String log) {
    return sign(SHOP, Expected.UP, log, 0);
  }

  @Test
  void itIsUpWhenItsListenersHaveRun() {
    assertThat(up(BEGUN)).isInstanceOf(Sign.Waiting.class);
    assertThat(up(BEGUN + UP)).isInstanceOf(Sign.Reached.class);
    assertThat(up(UP_JAVAX)).isInstanceOf(Sign.Reached.class);
  }

  @Test
  void whatIsOfAnotherReleaseListenerOrTimeProvesNothing() {
    assertThat(sign(SHOP, Expected.UP, UP, UP.length())).isInstanceOf(Sign.Waiting.class);
    assertThat(sign(placement("shop-1111", "main"), Expected.UP, UP, 0))
        .isInstanceOf(Sign.Waiting.class);
    assertThat(up(UP.replace("work/shop-2222", "work/annex-2222")))
        .isInstanceOf(Sign.Waiting.class);
    assertThat(sign(placement("shop-2222", "admin"), Expected.UP, UP, 0))
        .isInstanceOf(Sign.Waiting.class);
    assertThat(sign(placement("shop-2222", "shop.example"), Expected.UP, UP, 0))
        .isInstanceOf(Sign.Reached.class);
    assertThat(up(UP.replace(",/shop,", ",/shop/desk,"))).isInstanceOf(Sign.Waiting.class);
  }

  @Test
  void aFailureIsToldByTheApplicationsOwnFrameWhateverFollowsIt() {
    for (String log : List.of(FAILED, FAILED + NOT_AVAILABLE)) {
      assertThat(up(BEGUN + log))
          .isInstanceOfSatisfying(
              Sign.Failed.class,
              failed -> {
                assertThat(failed.cause().what())
                    .isEqualTo("listener shop.Start threw IllegalStateException: no tyres");
                assertThat(failed.cause().where())
                    .isEqualTo("shop.Start.contextInitialized(Start.java:4)");
                assertThat(failed.cause().why()).contains("Failed startup of context /shop");
              });
    }
    assertThat(up(NOT_AVAILABLE)).isInstanceOf(Sign.Failed.class);
    assertThat(up(FAILED + UP)).isInstanceOf(Sign.Reached.class);
  }

  @Test
  void aDescriptorThatItCannotReadIsAFailure() {
    String told =
        "Failed to to perform action DEPLOY on oejd.DeploymentScanner$PathsApp@1ae27[shop|ADDED,"
            + " env=null, mainPath=/srv/b/webapps/shop.xml, paths=[/srv/b/webapps/shop.xml|ADDED]]";
    assertThat(up(line("WARN", "oejd.DeploymentScanner", told))).isInstanceOf(Sign.Failed.class);
  }

  @Test
  void itIsGoneWhenItHasStopped() {
    String stopped = UP.replace("Started ", "Stopped ").replace("webapp/", "null");
    assertThat(sign(SHOP, Expected.GONE, "", 0)).isInstanceOf(Sign.Waiting.class);
    assertThat(sign(SHOP, Expected.GONE, stopped.replace("/srv/b/work/shop-2222/null", "null"), 0))
        .isInstanceOf(Sign.Reached.class);
  }
}
