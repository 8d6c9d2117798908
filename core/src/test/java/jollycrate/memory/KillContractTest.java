package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryOutcome.Result;
import jollycrate.server.Swap;
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

  @TempDir Path releases;

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
    UNDEPLOY(world -> world.deploy("a", OLD), world -> world.service().undeploy("a", false)),
    UNDEPLOY_STOPPED(
        world -> {
          world.deploy("a", OLD);
          world.control().stop();
        },
        world -> world.service().undeploy("a", false));

    final Consumer<World> before;
    final Consumer<World> act;

    Scenario(Consumer<World> before, Consumer<World> act) {
      this.before = before;
      this.act = act;
    }
  }

  /** What can be told of a world from outside. */
  private record Seen(Map<String, String> files, Optional<String> answer, boolean runs) {
    static Seen of(World world) {
      return new Seen(world.files(), answer(world), world.server.runs());
    }

    private static Optional<String> answer(World world) {
      return world.server.answer("a");
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

  private void everyKillIsSettled(Swap swap, Scenario scenario, boolean fronted) {
    World whole = prepared(swap, scenario, fronted);
    Seen before = Seen.of(whole);
    scenario.act.accept(whole);
    Seen after = Seen.of(whole);

    int deaths = 0;
    for (int point = 1; ; point++) {
      World world = prepared(swap, scenario, fronted);
      if (!dies(world, point, () -> scenario.act.accept(world))) {
        break;
      }
      deaths++;
      settle(world, point);
      assertSettled(world, before, after, scenario, "killed at " + point);
    }
    assertThat(deaths).isGreaterThan(20);
  }

  /** The recovery itself is killed once, at a place that wanders from kill to kill. */
  private static void settle(World world, int point) {
    dies(world, 1 + point * 7 % 31, () -> world.control().recover(false));
    world.host.killAt(-1);
    world.control().recover(false);
  }

  private World prepared(Swap swap, Scenario scenario, boolean fronted) {
    World world = new World(swap, releases, fronted);
    scenario.before.accept(world);
    return world;
  }

  private static boolean dies(World world, int point, Runnable act) {
    world.host.killAt(point);
    try {
      act.run();
      return false;
    } catch (Died killed) {
      return true;
    }
  }

  private static void assertSettled(
      World world, Seen before, Seen after, Scenario scenario, String when) {
    Seen now = Seen.of(world);
    boolean done = now.files().equals(after.files());
    assertThat(now.files()).as(when).isIn(before.files(), after.files());
    Seen expected = done && !before.files().equals(after.files()) ? after : before;
    assertThat(now.answer()).as(when + " answers").isEqualTo(expected.answer());
    assertThat(now.runs()).as(when + " runs").isEqualTo(expected.runs());
    assertThat(world.host.running()).as(when).hasSizeLessThanOrEqualTo(1);
    assertThat(world.control().unfinished()).as(when).isEmpty();
    assertThat(world.strayRecords()).as(when).isEmpty();
    scenario.act.accept(world);
    assertThat(Seen.of(world)).as(when + ", then again").isEqualTo(after);
  }

  @ParameterizedTest
  @CsvSource({
    "LIVE, v2 throws",
    "LIVE, v2 hangs",
    "LIVE, v2 wrong",
    "RESTART, v2 throws",
    "BESIDE_THEN_SWITCH, v2 throws",
    "BESIDE_THEN_SWITCH, v2 wrong"
  })
  void aFailedReleaseIsTakenBack(Swap swap, String release) {
    World world = new World(swap, releases);
    world.deploy("a", OLD);
    Seen before = Seen.of(world);
    DeliveryOutcome outcome = world.deploy("a", release);
    assertThat(outcome.result()).isEqualTo(Result.TAKEN_BACK);
    assertThat(Seen.of(world)).isEqualTo(before);
  }

  @ParameterizedTest
  @CsvSource({"LIVE", "RESTART", "BESIDE_THEN_SWITCH"})
  void whatTwoApplicationsShareStaysUntilTheLastGoes(Swap swap) {
    World both = new World(swap, releases);
    both.control().start();
    Map<String, String> bare = both.files();
    both.deploy("b", OLD);
    Map<String, String> onlyB = both.files();
    both.deploy("a", OLD);
    assertThat(both.deploy("a", OLD).result()).isEqualTo(Result.UNCHANGED);
    assertThat(both.service().undeploy("a", false).result()).isEqualTo(Result.REMOVED);
    assertThat(both.files()).isEqualTo(onlyB);
    both.service().undeploy("b", false);
    assertThat(both.files()).isEqualTo(bare);
  }

  @ParameterizedTest
  @CsvSource({"LIVE"})
  void whatSomebodyElseChangedIsLeftAloneAndNamed(Swap swap) {
    World world = new World(swap, releases);
    world.deploy("a", OLD);
    Path site = World.FOLDER.resolve("sites/a.site");
    for (int point = 1; world.host.text(site).contains("v1"); point++) {
      dies(world, point, () -> world.deploy("a", NEW));
    }
    world.host.killAt(-1);
    world.host.quietly(site, "by hand\n");
    if (world.control().unfinished().isPresent()) {
      DeliveryOutcome outcome = world.control().recover(false).orElseThrow();
      assertThat(outcome.result()).isEqualTo(Result.STUCK);
      assertThat(outcome.left()).anyMatch(left -> left.startsWith("sites/a.site"));
    } else {
      assertThat(world.deploy("a", "v3 right").result()).isEqualTo(Result.BLOCKED);
    }
    assertThat(world.host.text(site)).isEqualTo("by hand\n");
  }
}
