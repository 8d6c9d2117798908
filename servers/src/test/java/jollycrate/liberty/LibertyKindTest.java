package jollycrate.liberty;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import jollycrate.hosting.Logged;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;
import jollycrate.server.Sign;
import org.junit.jupiter.api.Test;

class LibertyKindTest extends ServerKindContract {
  private static final String DIGEST = "0123456789abcdef".repeat(4);
  private static final String HEAD = "[11/30/26, 20:59:13:442 UTC] 00000023 com.ibm.ws.app ";
  private static final String BEGINS = HEAD + "I CWWKZ0018I: Starting application bell.\n";
  private static final String ENDS =
      HEAD + "A CWWKZ0001I: Application bell started in 1 seconds.\n";

  @Override
  protected ServerKind kind() {
    return new LibertyKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    return installationIn(folder);
  }

  static Path installationIn(Path folder) throws IOException {
    Path versions = Files.createDirectories(folder.resolve("wlp/lib/versions"));
    Files.writeString(
        versions.resolve("openliberty.properties"), "com.ibm.websphere.productVersion=26.0.0.3\n");
    Files.write(folder.resolve("none.jar"), new byte[0]);
    return folder.resolve("wlp");
  }

  @Override
  protected String handed() {
    return "";
  }

  @Test
  void aHashIsKnownByWhatItIsMadeOf() {
    LibertyHash hashing = new LibertyHash();
    String made = hashing.of("tandem");
    assertThat(hashing.isOne(made)).isTrue();
    assertThat(new LibertyHash().matches(made, "tandem")).isTrue();
    assertThat(hashing.verifies(made, "other")).isFalse();
    String byTheServer =
        "{hash}ARAAAAAUUEJLREYyV2l0aEhtYWNTSEE1MTIwAAAAIJkXD7sYNHejWpTJvzkLdwIJ0ypZXUqYfUH0s+WSRxq+"
            + "QAAAACBt3KRp4i/vUdP0rIDCL4Z2MHDlw6uwUccAAHnHrTzzzg==";
    assertThat(hashing.verifies(byTheServer, "freewheel & hub ü")).isTrue();
    assertThat(hashing.isOne("{hash}AQ==")).isFalse();
    assertThat(hashing.isOne("{hash}ARB/////")).isFalse();
  }

  @Test
  void onlyThisReleaseTellsThatItIsUp() {
    assertThat(up(BEGINS + from("0123456789ab") + ENDS)).isInstanceOf(Sign.Reached.class);
    assertThat(up(BEGINS + from("ba9876543210") + ENDS)).isInstanceOf(Sign.Waiting.class);
    assertThat(up(BEGINS + ENDS.replace("bell", "bells"))).isInstanceOf(Sign.Waiting.class);
  }

  @Test
  void aFailureNamesTheFrameOfTheApplication() {
    String log =
        BEGINS
            + HEAD
            + "E SRVE0283E: Exception caught while initializing context:"
            + " java.lang.IllegalStateException: no tyres\n"
            + "\tat shop.Throws.contextInitialized(Throws.java:4)\n"
            + "\tat com.ibm.ws.webcontainer.webapp.WebApp.notify(WebApp.java:2474)\n\n"
            + HEAD
            + "A CWWKZ0020I: Application bell not updated.\n";
    assertThat(up(log))
        .isInstanceOfSatisfying(
            Sign.Failed.class,
            failed -> {
              assertThat(failed.cause().what())
                  .isEqualTo("listener shop.Throws threw IllegalStateException: no tyres");
              assertThat(failed.cause().where())
                  .isEqualTo("shop.Throws.contextInitialized(Throws.java:4)");
            });
  }

  /** The one before hangs: the next one is never begun. */
  @Test
  void aStartThatDoesNotEndKeepsTheServerBusy() {
    assertThat(up(BEGINS, BEGINS.length(), Duration.ofSeconds(6))).isInstanceOf(Sign.Failed.class);
    assertThat(up(BEGINS, BEGINS.length(), Duration.ofSeconds(1))).isInstanceOf(Sign.Waiting.class);
    assertThat(up(BEGINS, 0, Duration.ofSeconds(6))).isInstanceOf(Sign.Waiting.class);
  }

  private static String from(String digest) {
    return HEAD
        + "I CWWKZ0136I: The bell application is using the archive file at the"
        + " /srv/bench/delivered/bell/bell-1-"
        + digest
        + ".war location.\n";
  }

  private static Sign up(String log) {
    return up(log, 0, Duration.ofSeconds(1));
  }

  private static Sign up(String log, int fresh, Duration since) {
    Placement bell =
        Logged.bell(DIGEST, "/srv/bench/servers/main/configDropins/overrides/bell.xml");
    return new LibertyLog(log, bell).sign(Expected.UP, Logged.evidence(log, fresh, since));
  }
}
