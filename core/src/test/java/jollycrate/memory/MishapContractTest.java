package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryOutcome.Result;
import jollycrate.host.HostException;
import jollycrate.server.Swap;
import jollycrate.stock.RecordsException;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whatever goes wrong on the way, a delivery ends as its journal says, and says so rightly. */
class MishapContractTest {
  @TempDir Path releases;

  /** What goes wrong without anybody being killed. */
  enum Mishap {
    /** One change fails, half done or done though it seems. */
    CHANGE_FAILS((world, n) -> world.host.failAt(n)),
    READING_FAILS((world, n) -> world.host.failReadingAt(n)),
    DISK_FILLS_UP((world, n) -> world.host.fullFrom(n));

    final BiConsumer<World, Integer> begins;

    Mishap(BiConsumer<World, Integer> begins) {
      this.begins = begins;
    }
  }

  @ParameterizedTest
  @CsvSource({
    "LIVE, FIRST_ON_STOPPED, CHANGE_FAILS",
    "LIVE, REPLACE, CHANGE_FAILS",
    "LIVE, REPLACE, READING_FAILS",
    "LIVE, REPLACE, DISK_FILLS_UP",
    "LIVE, ANSWERS_WRONGLY, CHANGE_FAILS",
    "LIVE, ANSWERS_WRONGLY, DISK_FILLS_UP",
    "LIVE, ROLL_BACK, CHANGE_FAILS",
    "LIVE, ROLL_BACK, DISK_FILLS_UP",
    "LIVE, REPLACE_WITH_SCRIPT, CHANGE_FAILS",
    "LIVE, SCRIPT_THEN_WRONG, CHANGE_FAILS",
    "LIVE, STOP_ONE, CHANGE_FAILS",
    "LIVE, START_ONE, CHANGE_FAILS",
    "LIVE, HARDEN, CHANGE_FAILS",
    "LIVE, HARDEN, DISK_FILLS_UP",
    "LIVE, ADD_USER, CHANGE_FAILS",
    "LIVE, SPOIL, CHANGE_FAILS",
    "LIVE, SPOIL, DISK_FILLS_UP",
    "LIVE, UNDEPLOY, CHANGE_FAILS",
    "LIVE, UNDEPLOY, DISK_FILLS_UP",
    "RESTART, REPLACE, CHANGE_FAILS",
    "RESTART, THROWS, CHANGE_FAILS",
    "BESIDE_THEN_SWITCH, REPLACE, CHANGE_FAILS",
    "BESIDE_THEN_SWITCH, ANSWERS_WRONGLY, DISK_FILLS_UP"
  })
  void everyMishapEndsAsTheJournalSays(Swap swap, Scenario scenario, Mishap mishap) {
    everyMishap(new Rehearsal(swap, scenario, false, false, releases), mishap);
  }

  @ParameterizedTest
  @CsvSource({"REPLACE, CHANGE_FAILS", "REPLACE, DISK_FILLS_UP", "UNDEPLOY, CHANGE_FAILS"})
  void everyMishapFarAwayEndsAsTheJournalSays(Scenario scenario, Mishap mishap) {
    everyMishap(new Rehearsal(Swap.LIVE, scenario, false, true, releases), mishap);
  }

  private static void everyMishap(Rehearsal rehearsal, Mishap mishap) {
    Scenario scenario = rehearsal.scenario();
    Rehearsal.Ends ends = rehearsal.ends();
    int mishaps = 0;
    for (int n = 1; ; n++) {
      World world = rehearsal.prepared();
      mishap.begins.accept(world, n);
      Optional<DeliveryOutcome> outcome = outcome(world, scenario);
      if (!world.host.cameToPass()) {
        break;
      }
      mishaps++;
      String when = mishap + " at " + n + ": " + outcome.map(DeliveryOutcome::result);
      boolean proven = world.provenSince(ends.deliveries());
      assertToldRightly(world, ends, outcome, proven, when);
      world.host.trouble();
      world.control().recover();
      Rehearsal.assertSettled(world, ends.expected(proven), when + ", then settled");
    }
    assertThat(mishaps).isGreaterThan(20);
  }

  private static Optional<DeliveryOutcome> outcome(World world, Scenario scenario) {
    world.last = Optional.empty();
    try {
      scenario.act.accept(world);
    } catch (HostException | RecordsException refused) {
      return Optional.empty();
    }
    return world.last;
  }

  /**
   * Whoever says "taken back" or "nothing touched" must be right; being stuck names what is left.
   */
  private static void assertToldRightly(
      World world,
      Rehearsal.Ends ends,
      Optional<DeliveryOutcome> outcome,
      boolean proven,
      String when) {
    Seen now = Seen.of(world);
    Result result = outcome.map(DeliveryOutcome::result).orElse(Result.BLOCKED);
    switch (result) {
      case DELIVERED, REMOVED, CHANGED, STOPPED -> assertThat(now).as(when).isEqualTo(ends.after());
      case TAKEN_BACK, BLOCKED -> {
        assertThat(proven).as(when).isFalse();
        assertThat(now).as(when).isEqualTo(ends.before());
      }
      case STUCK -> {
        assertThat(outcome.orElseThrow().left()).as(when).isNotEmpty();
        if (!proven) {
          assertNamed(now, ends.before(), outcome.get().left(), when);
        }
      }
      default -> throw new AssertionError(when);
    }
  }

  private static void assertNamed(Seen now, Seen before, List<String> left, String when) {
    Set<String> paths = new TreeSet<>(now.files().keySet());
    paths.addAll(before.files().keySet());
    paths.stream()
        .filter(path -> !Objects.equals(now.files().get(path), before.files().get(path)))
        .map(path -> World.FOLDER.relativize(Path.of(path)).toString())
        .filter(path -> !path.endsWith(".part"))
        .forEach(path -> assertThat(left).as(when).anyMatch(line -> line.contains(path)));
  }
}
