package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import jollycrate.server.Swap;

/**
 * A scenario that is gone through again and again in worlds of its own.
 *
 * @param fronted whether requests come through a web server before it
 * @param isFar whether changes of the machine are made late, as those of one over a line are
 */
record Rehearsal(Swap swap, Scenario scenario, boolean fronted, boolean isFar, Path releases) {

  /** How a scenario begins and ends when nothing goes wrong. */
  record Ends(Seen before, Seen after, int deliveries) {
    Seen expected(boolean proven) {
      return proven ? after : before;
    }
  }

  /** When nothing goes wrong. */
  Ends ends() {
    World whole = prepared();
    Seen before = Seen.of(whole);
    int deliveries = whole.control().past().all().size();
    scenario.act.accept(whole);
    return new Ends(before, Seen.of(whole), deliveries);
  }

  /** A world in which all is ready for it. */
  World prepared() {
    World world =
        isFar ? new World(swap, releases, fronted, Far::from) : new World(swap, releases, fronted);
    scenario.before.accept(world);
    return world;
  }

  static void assertSettled(World world, Seen expected, String when) {
    Seen now = Seen.of(world);
    assertThat(now).as(when).isEqualTo(expected);
    assertThat(world.host.running()).as(when).hasSizeLessThanOrEqualTo(1);
    assertThat(world.control().unfinished()).as(when).isEmpty();
    assertThat(world.strayRecords()).as(when).isEmpty();
  }
}
