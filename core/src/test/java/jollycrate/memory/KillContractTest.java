package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryOutcome.Result;
import jollycrate.foresee.Finding;
import jollycrate.host.HostException;
import jollycrate.journal.OvertakenException;
import jollycrate.server.RecordsException;
import jollycrate.server.Swap;
import org.junit.jupiter.api.Test;
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
  private static final int EVERY_POINT_OF_RECOVERY_AFTER = 9;

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
    int deliveries = whole.control().deliveries().size();
    scenario.act.accept(whole);
    return new Ends(before, Seen.of(whole), deliveries);
  }

  private World prepared(Swap swap, Scenario scenario, boolean fronted) {
    World world = new World(swap, releases, fronted);
    scenario.before.accept(world);
    return world;
  }

  private static boolean dies(Runnable act) {
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
    "LIVE, UNDEPLOY, CHANGE_FAILS",
    "LIVE, UNDEPLOY, DISK_FILLS_UP",
    "RESTART, REPLACE, CHANGE_FAILS",
    "RESTART, THROWS, CHANGE_FAILS",
    "BESIDE_THEN_SWITCH, REPLACE, CHANGE_FAILS",
    "BESIDE_THEN_SWITCH, ANSWERS_WRONGLY, DISK_FILLS_UP"
  })
  void everyMishapEndsAsTheJournalSays(Swap swap, Scenario scenario, Mishap mishap) {
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
      case DELIVERED, REMOVED -> assertThat(now).as(when).isEqualTo(ends.after());
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

  @Test
  void whatSomebodyElseChangedIsLeftAloneAndNamedUntilItIsPutBack() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("a", OLD);
    Seen before = Seen.of(world);
    Path site = World.FOLDER.resolve("sites/a.site");
    String old = world.host.text(site);
    for (int point = 1; world.host.text(site).equals(old); point++) {
      world.host.killAt(point);
      dies(() -> world.deploy("a", NEW));
      world.host.trouble();
    }
    world.host.quietly(site, "by hand\n");
    DeliveryOutcome outcome = world.control().recover().orElseThrow();
    assertThat(outcome.result()).isEqualTo(Result.STUCK);
    assertThat(outcome.left()).anyMatch(left -> left.startsWith("sites/a.site"));
    assertThat(world.host.text(site)).isEqualTo("by hand\n");
    world.host.quietly(site, old);
    assertThat(world.control().recover().orElseThrow().result()).isEqualTo(Result.TAKEN_BACK);
    assertThat(Seen.of(world)).isEqualTo(before);
  }

  @Test
  void whoeverLostTheLockStopsBeforeHisNextLine() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("a", OLD);
    world.control().start();
    world.requests = () -> world.host.quietlyDelete(World.RECORDS.resolve("lock"));
    assertThatThrownBy(() -> world.deploy("a", NEW)).isInstanceOf(OvertakenException.class);
    String journal = world.host.text(World.RECORDS.resolve("journal.jsonl")).strip();
    assertThat(journal.lines().reduce((a, b) -> b).orElseThrow()).contains("run checks");
    world.requests = () -> {};
    assertThat(world.control().recover().orElseThrow().result()).isEqualTo(Result.TAKEN_BACK);
    assertThat(world.server.answer("a")).contains(OLD);
  }

  /** What cannot be read is neither "stopped" nor "switched". */
  @Test
  void whereProcessesAreHiddenNothingIsTouched() {
    World world = new World(Swap.BESIDE_THEN_SWITCH, releases, true);
    world.deploy("a", OLD);
    Map<String, String> before = world.files();
    world.host.hidesOthers = true;
    DeliveryOutcome outcome = world.deploy("a", NEW);
    assertThat(outcome.result()).isEqualTo(Result.BLOCKED);
    assertThat(outcome.findings())
        .extracting(Finding::message)
        .contains("whether this server runs cannot be told")
        .anyMatch(message -> message.contains("could not be told when this web server"));
    world.undeploy("a");
    assertThat(world.last.orElseThrow().result()).isEqualTo(Result.BLOCKED);
    assertThatThrownBy(() -> world.control().stop()).hasMessageContaining("Cannot tell whether");
    assertThat(world.files()).isEqualTo(before);
  }

  @Test
  void recordsThatCannotBeReadStopEverybodyUntilTheyAreSetAside() {
    for (String name : List.of("journal.jsonl", "standing.json", "process.json")) {
      World world = new World(Swap.LIVE, releases);
      world.deploy("a", OLD);
      Path record = World.RECORDS.resolve(name);
      for (String rubbish : List.of("", "{}", "\u0000\u0001", "{\"format\":99}")) {
        world.host.quietly(record, rubbish);
        Map<String, String> files = world.files();
        assertThatThrownBy(() -> world.deploy("a", NEW))
            .as(name + " " + rubbish)
            .isInstanceOf(RecordsException.class)
            .hasMessageContaining("--set-aside");
        assertThat(world.files()).isEqualTo(files);
      }
      assertThat(world.control().setAside()).isNotEmpty();
      assertThat(world.control().recover()).isEmpty();
    }
  }
}
