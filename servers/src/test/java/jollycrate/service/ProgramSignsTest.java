package jollycrate.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.host.Fact;
import jollycrate.host.Life;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the keeper's events say of one program, and of no other. */
class ProgramSignsTest {
  private static final URI ADDRESS = URI.create("http://127.0.0.1:8091/");
  private static final Placement BELL =
      new Placement(
          new Placement.Release("bell", "1", "d", List.of("bell")),
          new Placement.Route("main", "", ADDRESS, ADDRESS),
          Path.of("/srv/programs/8091.program"),
          Placement.Made.NOTHING,
          new Placement.Timing(Duration.ofSeconds(1), Duration.ofSeconds(60)));

  /** Events by letters, each a line as the keeper writes it. */
  private static String log(String events) {
    StringBuilder log = new StringBuilder();
    for (char event : events.toCharArray()) {
      log.append("2026-03-01T08:00:00Z ")
          .append(
              switch (event) {
                case 'u' -> "up keeper";
                case 'b' -> "begin 8091 new pid 7 log bell:1:0";
                case 'o' -> "begin 8091 old pid 6 log bell:1:0";
                case 'x' -> "begin 8092 new pid 8 log bell-8092:1:0";
                case 'e' -> "ended 8091 new code 1";
                case 'k' -> "ended 8091 new code 137";
                case 'f' -> "ended 8091 old code 143";
                case 'a' -> "again 8091 new in 1 s";
                case 'r' -> "refused 8091 new no such folder";
                case 'g' -> "gone 8091 new";
                case 'h' -> "gone 8091 old";
                default -> "ending 8091 old";
              })
          .append('\n');
    }
    return log.toString();
  }

  @ParameterizedTest
  @CsvSource({
    "UP,       u,       '',   true,  0, Waiting",
    "UP,       u,       ob,   true,  0, Reached",
    "UP,       uo,      ifhb, true,  0, Reached",
    "UP,       uo,      ifhb, false, 0, Waiting",
    "UP,       uo,      '',   true,  5, Waiting",
    "UP,       uo,      xi,   true,  5, Waiting",
    "UP,       u,       be,   false, 0, Failed",
    "UP,       u,       bka,  false, 0, Failed",
    "UP,       u,       r,    false, 0, Failed",
    "UP,       ub,      '',   true,  0, Waiting",
    "UP,       ub,      '',   true,  5, Reached",
    "UP,       ub,      u,    true,  5, Waiting",
    "UP,       ube,     b,    true,  0, Reached",
    "SWITCHED, ub,      '',   true,  0, Reached",
    "GONE,     ub,      '',   true,  5, Waiting",
    "GONE,     ub,      g,    false, 0, Reached",
    "GONE,     ub,      h,    false, 0, Waiting",
    "GONE,     u,       '',   false, 0, Waiting",
    "GONE,     u,       '',   false, 5, Reached"
  })
  void eventsDecide(
      Expected expected, String before, String after, boolean open, int seconds, String sign) {
    String earlier = log(before);
    Evidence evidence = evidence(earlier + log(after), earlier.length(), open, seconds, Set.of());
    assertThat(sign(expected, evidence, "").getClass().getSimpleName()).isEqualTo(sign);
  }

  private static Evidence evidence(
      String log, int fresh, boolean open, int seconds, Set<Integer> elsewhere) {
    Duration since = Duration.ofSeconds(seconds);
    return new Evidence(
        log,
        fresh,
        since,
        false,
        Life.RUNS,
        Fact.known(open),
        elsewhere,
        since,
        "almost up",
        Evidence.Made.NOTHING);
  }

  private static Sign sign(Expected expected, Evidence evidence, String ready) {
    return new ProgramSigns(BELL, evidence, "new", Optional.of(ready)).sign(expected);
  }

  @ParameterizedTest
  @CsvSource({"20, Failed", "3, Waiting"})
  void anotherPortIsNamedAfterAWhile(int seconds, String sign) {
    Sign seen = sign(Expected.UP, evidence(log("ub"), 0, false, seconds, Set.of(8080)), "");
    assertThat(seen.getClass().getSimpleName()).isEqualTo(sign);
    assertThat(seen.toString()).contains("8091");
  }

  @ParameterizedTest
  @CsvSource({"almost, Reached", "quite up, Waiting"})
  void aLineThatIsToComeIsWaitedFor(String ready, String sign) {
    Sign seen = sign(Expected.UP, evidence(log("ub"), 0, true, 5, Set.of()), ready);
    assertThat(seen.getClass().getSimpleName()).isEqualTo(sign);
  }
}
