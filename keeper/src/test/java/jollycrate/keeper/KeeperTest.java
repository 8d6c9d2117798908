package jollycrate.keeper;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What stands in {@code run} is what runs, whatever happens to a program or to its keeper. */
class KeeperTest {
  private static final long LIMIT_NANOS = TimeUnit.SECONDS.toNanos(60);
  private static final long LOOK_NANOS = 5_000_000;
  private static final String STAYS = "exec sleep 1000";

  @TempDir Path folder;
  private final List<Process> keepers = new ArrayList<>();

  @BeforeEach
  void begin() throws IOException {
    for (String name : List.of("programs", "state", "log")) {
      Files.createDirectory(folder.resolve(name));
    }
  }

  @AfterEach
  void end() throws InterruptedException {
    keepers.forEach(Process::destroy);
    for (Process keeper : keepers) {
      assertThat(keeper.waitFor(60, TimeUnit.SECONDS)).isTrue();
    }
  }

  @Test
  void aFileStartsAChangeReplacesAndItsEndEnds() throws Exception {
    run("bell", "echo one; " + STAYS, "");
    Process keeper = keep();
    until(() -> events().contains(" begin bell "));
    Note first = note("bell");
    until(() -> text("log/bell.log").equals("one\n"));
    run("bell", "echo two; " + STAYS, "");
    until(() -> text("log/bell.log").equals("one\ntwo\n"));
    assertThat(first.alive()).isFalse();
    Note second = note("bell");
    run("horn", STAYS, "");
    until(() -> events().contains(" begin horn "));
    Files.delete(folder.resolve("programs/bell.program"));
    until(() -> times(" gone bell ") == 2);
    assertThat(second.alive()).isFalse();
    Note horn = note("horn");
    assertThat(horn.alive()).isTrue();
    keeper.destroy();
    assertThat(keeper.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(horn.alive()).isFalse();
    assertThat(events()).endsWith(" down keeper\n");
  }

  @Test
  void aCrashIsFollowedByAnotherStartAfterLongerAndLongerPauses() throws Exception {
    run("bell", "exit 3", "restart=on-crash");
    run("horn", "exit 3", "restart=never");
    run("lamp", "exit 0", "restart=on-crash");
    keep();
    until(() -> events().contains(" in 2 s"));
    assertThat(events()).containsPattern(" ended bell \\S+ code 3\n").contains(" in 1 s");
    assertThat(times(" begin horn ")).isEqualTo(1);
    assertThat(times(" begin lamp ")).isEqualTo(1);
  }

  @Test
  void whatAKilledKeeperLeftBehindIsEndedByTheNext() throws Exception {
    run("bell", STAYS, "");
    Process first = keep();
    until(() -> events().contains(" begin bell "));
    assertThat(keep().waitFor()).as("a second one at once").isEqualTo(1);
    Note left = note("bell");
    first.destroyForcibly().waitFor();
    assertThat(left.alive()).isTrue();
    keep();
    until(() -> times(" begin bell ") == 2);
    assertThat(left.alive()).isFalse();
    assertThat(note("bell").alive()).isTrue();
  }

  /** As a power cut leaves it. */
  @Test
  void anEmptyNoteHoldsUpNothing() throws Exception {
    Files.createFile(folder.resolve("state/bell.pid"));
    run("bell", STAYS, "");
    keep();
    until(() -> events().contains(" begin bell "));
    assertThat(events()).contains(" lost bell.pid no process is noted in ");
  }

  /** No room for a process, or no folder to work in, may pass. */
  @Test
  void whatCouldNotBeStartedIsTriedAgain() throws Exception {
    Path works = folder.resolve("works");
    run("bell", STAYS, "restart=on-crash");
    Path file = folder.resolve("programs/bell.program");
    Files.writeString(file, Files.readString(file).replace("folder=" + folder, "folder=" + works));
    keep();
    until(() -> events().contains(" refused bell "));
    Files.createDirectory(works);
    until(() -> events().contains(" begin bell "));
  }

  @Test
  void aFileThatCannotBeReadIsToldAndWhatRunsGoesOn() throws Exception {
    run("bell", STAYS, "");
    keep();
    until(() -> events().contains(" begin bell "));
    Note bell = note("bell");
    run("bell", STAYS, "stop.within=soon");
    until(() -> events().contains(" refused bell "));
    assertThat(bell.alive()).isTrue();
  }

  @Test
  void aDeafProgramIsEndedWithEverythingItStarted() throws Exception {
    run("bell", "trap '' TERM; sleep 1000 & echo $!; while :; do wait; done", "stop.within=1");
    keep();
    until(() -> text("log/bell.log").endsWith("\n"));
    long child = Long.parseLong(text("log/bell.log").strip());
    Note bell = note("bell");
    Files.delete(folder.resolve("programs/bell.program"));
    until(() -> events().contains(" gone bell "));
    assertThat(events()).contains(" deaf bell ");
    assertThat(bell.alive()).isFalse();
    until(() -> ProcessHandle.of(child).isEmpty());
  }

  /**
   * As after an undeploy that was interrupted: the file comes back before the program has ended.
   */
  @Test
  void aProgramThatComesBackWaitsForItsOwnEnd() throws Exception {
    String slow = "trap 'sleep 2; exit 0' TERM; echo up; while :; do sleep 0.1; done";
    run("bell", slow, "stop.within=60");
    keep();
    until(() -> text("log/bell.log").equals("up\n"));
    Note first = note("bell");
    Files.delete(folder.resolve("programs/bell.program"));
    until(() -> events().contains(" ending bell "));
    run("bell", slow, "stop.within=60");
    until(() -> times(" begin bell ") == 2);
    assertThat(first.alive()).isFalse();
    assertThat(note("bell").alive()).isTrue();
  }

  private void run(String name, String script, String lines) throws IOException {
    Path beside = folder.resolve(name + ".part");
    Files.writeString(
        beside, "command=/bin/sh\\n-c\\n" + script + "\nfolder=" + folder + "\n" + lines);
    Files.move(
        beside, folder.resolve("programs/" + name + ".program"), StandardCopyOption.ATOMIC_MOVE);
  }

  private Process keep() throws IOException {
    String java = Path.of(System.getProperty("java.home"), "bin/java").toString();
    Process keeper =
        new ProcessBuilder(java, "-cp", "target/classes", Keeper.class.getName(), folder.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("keeper.out").toFile())
            .start();
    keepers.add(keeper);
    return keeper;
  }

  private Note note(String name) throws IOException {
    return Note.read(folder.resolve("state/" + name + ".pid"));
  }

  private String events() {
    return text("state/events");
  }

  private long times(String event) {
    return events().lines().filter(line -> line.contains(event)).count();
  }

  private String text(String file) {
    try {
      Path path = folder.resolve(file);
      return Files.exists(path) ? Files.readString(path) : "";
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void until(BooleanSupplier fact) {
    long until = System.nanoTime() + LIMIT_NANOS;
    while (!fact.getAsBoolean()) {
      assertThat(System.nanoTime()).isLessThan(until);
      LockSupport.parkNanos(LOOK_NANOS);
    }
  }
}
