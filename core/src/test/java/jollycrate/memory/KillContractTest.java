package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
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
  private static final int EVERY_POINT_OF_RECOVERY_AFTER = 16;
  private static final int ONCE_MORE_AFTER = 4;

  @TempDir Path releases;

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
    "LIVE, REPLACE_WITH_SCRIPT",
    "LIVE, SCRIPT_THEN_WRONG",
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
    "RESTART, SCRIPT_THEN_WRONG",
    "RESTART, UNDEPLOY",
    "RESTART, UNDEPLOY_STOPPED",
    "BESIDE_THEN_SWITCH, FIRST_ON_RUNNING",
    "BESIDE_THEN_SWITCH, REPLACE",
    "BESIDE_THEN_SWITCH, THROWS",
    "BESIDE_THEN_SWITCH, HANGS",
    "BESIDE_THEN_SWITCH, ANSWERS_WRONGLY",
    "BESIDE_THEN_SWITCH, REPLACE_WITH_SCRIPT",
    "BESIDE_THEN_SWITCH, ROLL_BACK",
    "BESIDE_THEN_SWITCH, UNDEPLOY"
  })
  void everyKillIsSettled(Swap swap, Scenario scenario) {
    everyKillIsSettled(new Rehearsal(swap, scenario, false, false, releases));
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
    everyKillIsSettled(new Rehearsal(Swap.BESIDE_THEN_SWITCH, scenario, true, false, releases));
  }

  @ParameterizedTest
  @EnumSource(
      value = Scenario.class,
      names = {"REPLACE", "UNDEPLOY"})
  void everyKillIsSettledFarAway(Scenario scenario) {
    everyKillIsSettled(new Rehearsal(Swap.LIVE, scenario, false, true, releases));
  }

  private static void everyKillIsSettled(Rehearsal rehearsal) {
    Scenario scenario = rehearsal.scenario();
    Rehearsal.Ends ends = rehearsal.ends();
    int deaths = 0;
    for (int point = 1; ; point++) {
      World world = rehearsal.prepared();
      world.host.killAt(point);
      if (!dies(() -> scenario.act.accept(world))) {
        break;
      }
      deaths++;
      boolean proven = world.provenSince(ends.deliveries());
      settle(world, point, point + scenario.ordinal());
      Rehearsal.assertSettled(world, ends.expected(proven), "killed at " + point);
      if ((point + scenario.ordinal()) % ONCE_MORE_AFTER == 0) {
        scenario.act.accept(world);
        assertThat(Seen.of(world))
            .as("killed at " + point + ", then again")
            .isEqualTo(ends.after());
      }
    }
    assertThat(deaths).isGreaterThan(20);
  }

  /**
   * A few recoveries, others in each scenario, are killed at each of their points in turn, the rest
   * at one that wanders.
   */
  private static void settle(World world, int point, int turn) {
    if (turn % EVERY_POINT_OF_RECOVERY_AFTER == 0) {
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

  static boolean dies(Runnable act) {
    try {
      act.run();
      return false;
    } catch (Died killed) {
      return true;
    }
  }
}
