package jollycrate.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import jollycrate.host.HostException;
import jollycrate.host.Time;
import jollycrate.watch.Interrupts;
import org.junit.jupiter.api.Test;

/** Rounds go on over what passes, and end when nobody wants another one. */
class RoundsTest {
  private final List<Rounds.Round> seen = new ArrayList<>();
  private final Interrupts interrupts = new Interrupts();

  /** Every pause takes as long as it is told, and no longer. */
  private static final class Ticking implements Time {
    private Instant now = Instant.EPOCH;

    @Override
    public Instant now() {
      return now;
    }

    @Override
    public void pause(Duration duration) {
      now = now.plus(duration);
    }
  }

  private void run(int most, Supplier<DeliveryOutcome> checks) {
    new Rounds(Duration.ofSeconds(5), interrupts, new Ticking())
        .run(
            checks,
            round -> {
              seen.add(round);
              return seen.size() < most;
            });
  }

  @Test
  void aMachineThatIsAwayIsToldAndAskedAgain() {
    run(
        3,
        () -> {
          throw new HostException("Cannot reach 'app1'");
        });
    assertThat(seen).extracting(Rounds.Round::trouble).containsOnly("Cannot reach 'app1'");
    assertThat(seen).noneMatch(Rounds.Round::passed);
    assertThat(Duration.between(seen.get(0).at(), seen.get(2).at()))
        .isBetween(Duration.ofSeconds(10), Duration.ofSeconds(11));
  }

  @Test
  void aFaultOfOursEndsThem() {
    assertThatThrownBy(
            () ->
                run(
                    3,
                    () -> {
                      throw new IllegalStateException("ours");
                    }))
        .hasMessage("ours");
    assertThat(seen).isEmpty();
  }

  @Test
  void aSignalEndsThem() {
    run(
        3,
        () -> {
          interrupts.ask();
          throw new HostException("cut off by the signal");
        });
    assertThat(seen).isEmpty();
  }
}
