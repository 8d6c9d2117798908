package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import jollycrate.app.Ports;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryOutcome.Result;
import jollycrate.host.HostException;
import jollycrate.server.Swap;
import jollycrate.server.Wish;
import jollycrate.stock.RecordsException;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * A delivery killed at any instant is settled by the next command: wholly as before, or wholly
 * done, with the right release answering.
 */
class KillContractTest {
  private static final String OLD = "v1 right";
  private static final String NEW = "v2 right";
  private static final Optional<Integer> NONE = Optional.empty();
  private static final int EVERY_POINT_OF_RECOVERY_AFTER = 9;

  @TempDir Path releases;

  /** Whether changes of the machine are made late, as those of one over a line are. */
  private boolean isFar;

  /** What is prepared, what is done and killed. */
  enum Scenario {
    FIRST_ON_STOPPED(world -> {}, world -> world.deploy("a", NEW)),
    FIRST_ON_RUNNING(world -> world.control().start(), world -> world.deploy("a", NEW)),
    REPLACE(world -> world.deploy("a", OLD), world -> world.deploy("a", NEW)),
    REPLACE_BESIDE_ANOTHER(
        world -> {
          world.deploy("b", OLD);
          world.deploy("a", OLD);
        },
        world -> world.deploy("a", NEW)),
    REPLACE_ON_STOPPED(
        world -> {
          world.deploy("a", OLD);
          world.control().stop();
        },
        world -> world.deploy("a", NEW)),
    THROWS(world -> world.deploy("a", OLD), world -> world.deploy("a", "v2 throws")),
    HANGS(world -> world.deploy("a", OLD), world -> world.deploy("a", "v2 hangs")),
    ANSWERS_WRONGLY(world -> world.deploy("a", OLD), world -> world.deploy("a", "v2 wrong")),
    FIRST_THROWS(world -> world.control().start(), world -> world.deploy("a", "v2 throws")),
    ROLL_BACK(
        world -> {
          world.deploy("a", OLD);
          world.deploy("a", NEW);
        },
        world -> world.rollback(1)),
    STOP_ONE(
        world -> {
          world.deploy("b", OLD);
          world.deploy("a", OLD);
        },
        world -> world.turn("a", false)),
    START_ONE(
        world -> {
          world.deploy("a", OLD);
          world.turn("a", false);
        },
        world -> world.turn("a", true)),
    HARDEN(world -> world.deploy("a", OLD), world -> world.overhaul(new Wish.Hardened(true))),
    HARDEN_STOPPED(
        world -> {
          world.deploy("a", OLD);
          world.control().stop();
        },
        world -> world.overhaul(new Wish.Hardened(false))),
    ADD_USER(
        world -> world.deploy("a", OLD),
        world -> world.overhaul(new Wish.Users(new Wish.Removed("anna")))),
    SPOIL(
        world -> world.deploy("a", OLD),
        world ->
            world.overhaul(
                new Wish.AsDescribed(
                    new Ports("", 1, Optional.empty(), NONE, NONE), Optional.empty()))),
    UNDEPLOY(world -> world.deploy("a", OLD), world -> world.undeploy("a")),
    UNDEPLOY_STOPPED(
        world -> {
          world.deploy("a", OLD);
          world.control().stop();
        },
        world -> world.undeploy("a"));

    final Consumer<World> before;
    final Consumer<World> act;

    Scenario(Consumer<World> before, Consumer<World> act) {
      this.before = before;
      this.act = act;
    }
  }

  @ParameterizedTest
  @CsvSource({
    "LIVE, FIRST_ON_STOPPED",
    "LIVE, FIRST_ON_RUNNING",
    "LIVE, REPLACE",
    "LIVE, REPLACE_BESIDE_ANOTHER",
    "LIVE, REPLACE_ON_STOPPED",
    "LIVE, THROWS",
    "LIVE, HANGS",
    "LIVE, ANSWERS_WRONGLY",
    "LIVE, FIRST_THROWS",
    "LIVE, ROLL_BACK",
    "LIVE, STOP_ONE",
    "LIVE, START_ONE",
    "LIVE, HARDEN",
    "LIVE, HARDEN_STOPPED",
    "LIVE, ADD_USER",
    "LIVE, SPOIL",
    "LIVE, UNDEPLOY",
    "LIVE, UNDEPLOY_STOPPED",
    "RESTART, FIRST_ON_STOPPED",
    "RESTART, FIRST_ON_RUNNING",
    "RESTART, REPLACE",
    "RESTART, REPLACE_ON_STOPPED",
    "RESTART, THROWS",
    "RESTART, HANGS",
    "RESTART, UNDEPLOY",
    "RESTART, UNDEPLOY_STOPPED",
    "BESIDE_THEN_SWITCH, FIRST_ON_RUNNING",
    "BESIDE_THEN_SWITCH, REPLACE",
    "BESIDE_THEN_SWITCH, THROWS",
    "BESIDE_THEN_SWITCH, HANGS",
    "BESIDE_THEN_SWITCH, ANSWERS_WRONGLY",
    "BESIDE_THEN_SWITCH, ROLL_BACK",
    "BESIDE_THEN_SWITCH, UNDEPLOY"
  })
  void everyKillIsSettled(Swap swap, Scenario scenario) {
    everyKillIsSettled(swap, scenario, false);
  }

  @ParameterizedTest
  @EnumSource(
      value = Scenario.class,
      names = {
        "FIRST_ON_STOPPED",
        "FIRST_ON_RUNNING",
        "REPLACE",
        "THROWS",
        "ANSWERS_WRONGLY",
        "UNDEPLOY"
      })
  void everyKillIsSettledBehindAFront(Scenario scenario) {
    everyKillIsSettled(Swap.BESIDE_THEN_SWITCH, scenario, true);
  }

  @ParameterizedTest
  @EnumSource(
      value = Scenario.class,
      names = {"REPLACE", "UNDEPLOY"})
  void everyKillIsSettledFarAway(Scenario scenario) {
    isFar = true;
    everyKillIsSettled(Swap.LIVE, scenario, false);
  }

  private void everyKillIsSettled(Swap swap, Scenario scenario, boolean fronted) {
    Ends ends = ends(swap, scenario, fronted);
    int deaths = 0;
    for (int point = 1; ; point++) {
      World world = prepared(swap, scenario, fronted);
      world.host.killAt(point);
      if (!dies(() -> scenario.act.accept(world))) {
        break;
      }
      deaths++;
      boolean proven = world.provenSince(ends.deliveries());
      settle(world, point);
      assertSettled(world, ends.expected(proven), "killed at " + point);
      scenario.act.accept(world);
      assertThat(Seen.of(world)).as("killed at " + point + ", then again").isEqualTo(ends.after());
    }
    assertThat(deaths).isGreaterThan(20);
  }

  /**
   * A few recoveries are killed at each of their points in turn, the others at one that wanders.
   */
  private static void settle(World world, int point) {
    if (point % EVERY_POINT_OF_RECOVERY_AFTER == 0) {
      int deadly = 1;
      do {
        world.host.killAt(deadly++);
      } while (dies(() -> world.control().recover()));
    } else {
      world.host.killAt(1 + point * 7 % 31);
      dies(() -> world.control().recover());
    }
    world.host.trouble();
    world.control().recover();
  }

  /** How a scenario begins and ends when nothing goes wrong. */
  private record Ends(Seen before, Seen after, int deliveries) {
    Seen expected(boolean proven) {
      return proven ? after : before;
    }
  }

  private Ends ends(Swap swap, Scenario scenario, boolean fronted) {
    World whole = prepared(swap, scenario, fronted);
    Seen before = Seen.of(whole);
    int deliveries = whole.control().past().all().size();
    scenario.act.accept(whole);
    return new Ends(before, Seen.of(whole), deliveries);
  }

  private World prepared(Swap swap, Scenario scenario, boolean fronted) {
    World world =
        isFar ? new World(swap, releases, fronted, Far::from) : new World(swap, releases, fronted);
    scenario.before.accept(world);
    return world;
  }

  static boolean dies(Runnable act) {
    try {
      act.run();
      return false;
    } catch (Died killed) {
      return true;
    }
  }

  private static void assertSettled(World world, Seen expected, String when) {
    Seen now = Seen.of(world);
    assertThat(now).as(when).isEqualTo(expected);
    assertThat(world.host.running()).as(when).hasSizeLessThanOrEqualTo(1);
    assertThat(world.control().unfinished()).as(when).isEmpty();
    assertThat(world.strayRecords()).as(when).isEmpty();
  }

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
    everyMishap(swap, scenario, mishap);
  }

  @ParameterizedTest
  @CsvSource({"REPLACE, CHANGE_FAILS", "REPLACE, DISK_FILLS_UP", "UNDEPLOY, CHANGE_FAILS"})
  void everyMishapFarAwayEndsAsTheJournalSays(Scenario scenario, Mishap mishap) {
    isFar = true;
    everyMishap(Swap.LIVE, scenario, mishap);
  }

  private void everyMishap(Swap swap, Scenario scenario, Mishap mishap) {
    Ends ends = ends(swap, scenario, false);
    int mishaps = 0;
    for (int n = 1; ; n++) {
      World world = prepared(swap, scenario, false);
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
      assertSettled(world, ends.expected(proven), when + ", then settled");
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
      World world, Ends ends, Optional<DeliveryOutcome> outcome, boolean proven, String when) {
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
