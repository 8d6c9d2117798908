package jollycrate.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryOutcome.Result;
import jollycrate.delivery.Manner;
import jollycrate.foresee.ChangedThere;
import jollycrate.foresee.Finding;
import jollycrate.journal.OvertakenException;
import jollycrate.script.HalfApplied;
import jollycrate.server.Swap;
import jollycrate.stock.RecordsException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Somebody else changes, takes away or hides something: it is left alone, named, or refused. */
class OthersMeanwhileTest {
  private static final String OLD = "v1 right";
  private static final String NEW = "v2 right";

  @TempDir Path releases;

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

  /** By its log the earlier release is up, and yet it answers nothing. */
  @Test
  void aReleaseIsNotAsBeforeWhenTheServerLosesWhatItUnpacked() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("a", OLD);
    world.server.loses(OLD);
    DeliveryOutcome outcome = world.deploy("a", "v2 throws");
    assertThat(outcome.result()).isEqualTo(Result.STUCK);
    assertThat(outcome.left()).anyMatch(left -> left.contains("exploded/a is gone"));
  }

  @Test
  void aSwitchThatTheServerOverlooksIsPutBeforeItOnceMore() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("a", OLD);
    world.server.overlooksOne();
    assertThat(world.deploy("a", NEW).result()).isEqualTo(Result.DELIVERED);
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
    assertThat(both.service().undeploy("a", Manner.USUAL).result()).isEqualTo(Result.REMOVED);
    assertThat(both.files()).isEqualTo(onlyB);
    both.service().undeploy("b", Manner.USUAL);
    assertThat(both.files()).isEqualTo(bare);
  }

  @Test
  void whatAnotherApplicationNeedsIsNotChangedUnderIt() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("b", OLD);
    world.driver = "another driver";
    Seen before = Seen.of(world);
    DeliveryOutcome outcome = world.deploy("a", OLD);
    assertThat(outcome.result()).isEqualTo(Result.BLOCKED);
    assertThat(outcome.findings())
        .filteredOn(finding -> finding.subject().equals("store/driver.jar"))
        .extracting(Finding::message)
        .containsExactly("it is shared with b, which needs it as it stands there");
    assertThat(Seen.of(world)).isEqualTo(before);
    assertThat(world.deploy("b", NEW).result()).isEqualTo(Result.DELIVERED);
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
      KillContractTest.dies(() -> world.deploy("a", NEW));
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

  /** Neither silently kept nor silently lost; a kept change is asked about again. */
  @Test
  void whatSomebodyChangedInAFragmentStaysOrGoesAsAsked() {
    for (ChangedThere.Choice choice : ChangedThere.Choice.values()) {
      World world = new World(Swap.LIVE, releases);
      world.deploy("a", OLD);
      Path shared = World.FOLDER.resolve("shared.conf");
      String ours = world.host.text(shared);
      String byHand = ours.replace("a: anna", "a: carla");
      assertThat(byHand).isNotEqualTo(ours);
      world.host.quietly(shared, byHand);
      world.manner = new Manner(false, false, choice, HalfApplied.ASK, Set.of());
      DeliveryOutcome outcome = world.deploy("a", NEW);
      boolean asks = choice == ChangedThere.Choice.ASK;
      assertThat(outcome.result()).isEqualTo(asks ? Result.BLOCKED : Result.DELIVERED);
      assertThat(outcome.findings())
          .filteredOn(finding -> finding.subject().equals("shared.conf, 'a'"))
          .extracting(Finding::seen)
          .containsExactly("- anna\n+ carla");
      assertThat(world.host.text(shared))
          .isEqualTo(choice == ChangedThere.Choice.REPLACE ? ours : byHand);
      world.manner = Manner.USUAL;
      Result again = choice == ChangedThere.Choice.REPLACE ? Result.UNCHANGED : Result.BLOCKED;
      assertThat(world.deploy("a", NEW).result()).isEqualTo(again);
    }
  }

  /** What was asked meanwhile was another release, so that nothing is proven of this one. */
  @Test
  void whoeverDeliversWhileChecksRunIsNotTakenForWhatStands() {
    World world = new World(Swap.LIVE, releases);
    world.deploy("a", OLD);
    world.control().start();
    world.requests =
        () -> {
          world.requests = () -> {};
          world.deploy("a", NEW);
        };
    DeliveryOutcome outcome = world.deploy("a", OLD);
    assertThat(outcome.result()).isEqualTo(Result.DELIVERED);
    assertThat(world.server.answer("a")).contains(OLD);
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
