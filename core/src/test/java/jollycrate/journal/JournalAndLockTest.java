package jollycrate.journal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.Identity;
import jollycrate.server.Json;
import jollycrate.server.Part;
import jollycrate.server.Swap;
import jollycrate.step.State;
import jollycrate.step.Step;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What was written is read again, a torn line is none, and only one may change a server. */
class JournalAndLockTest {
  @TempDir Path folder;
  private final Host host = Host.local();
  private Access access;
  private Path lock;
  private Path file;

  @BeforeEach
  void own() {
    access = host.files().facts(folder).access().with("rw-r--r--");
    lock = folder.resolve("lock");
    file = folder.resolve("journal.jsonl");
  }

  private Journal open() {
    JournalLine.Opened opened =
        new JournalLine.Opened(
            3,
            "deploy",
            "shop",
            Instant.EPOCH,
            "anna",
            host.processes().self(),
            "",
            Swap.LIVE,
            null,
            null,
            true);
    return Journal.open(host.files(), file, access, opened);
  }

  @Test
  void everyLineComesBack() {
    Journal journal = open();
    State before = new State("old", access);
    Step put = new Step.PutFile(folder.resolve("x"), before, new State("new", access), Part.SWITCH);
    journal.write(new JournalLine.Doing(1, new Step.MakeFolder(folder, access), -1, Instant.EPOCH));
    journal.write(new JournalLine.Done(1));
    journal.write(new JournalLine.Doing(2, put, 42, Instant.EPOCH));
    journal.write(new JournalLine.Undoing(2, 99));
    journal.write(new JournalLine.Undone(2));
    Journal read = Journal.read(host.files(), file).orElseThrow();
    assertThat(read.opened()).isEqualTo(journal.opened());
    assertThat(read.backwards()).extracting(JournalLine.Doing::number).containsExactly(2, 1);
    assertThat(read.backwards().get(0).step()).isEqualTo(put);
    assertThat(read.undoingMark(2)).isEqualTo(99);
    assertThat(read.isUndone(2)).isTrue();
    assertThat(read.isUndone(1)).isFalse();
    assertThat(read.proven()).isEmpty();
    assertThat(read.isEnded()).isFalse();
  }

  @Test
  void aTornLineCountsAsNotWrittenAndSpoilsNothing() throws IOException {
    open().write(new JournalLine.Proven(List.of()));
    String whole = Files.readString(file);
    Files.writeString(file, whole.substring(0, whole.length() - 5));
    Journal torn = Journal.read(host.files(), file).orElseThrow();
    assertThat(torn.proven()).isEmpty();
    torn.write(new JournalLine.Ended(JournalLine.Outcome.TAKEN_BACK));
    assertThat(Journal.read(host.files(), file).orElseThrow().isEnded()).isTrue();
    Files.writeString(file, "{\"line\":\"ope");
    assertThat(Journal.read(host.files(), file)).isEmpty();
  }

  @Test
  void aDeliveryIsRecordedOnce() throws IOException {
    Deliveries deliveries = new Deliveries(host.files(), folder.resolve("deliveries.jsonl"));
    DeliveryRecord one =
        new DeliveryRecord(
            1,
            Instant.EPOCH,
            "deploy",
            "shop",
            "1",
            "d",
            "",
            "http://x",
            "delivered",
            "",
            "anna",
            5);
    deliveries.add(one, access);
    Files.writeString(
        folder.resolve("deliveries.jsonl"), Json.line(one) + "\n{\"delivery\":2,\"at");
    deliveries.add(one, access);
    assertThat(deliveries.all()).containsExactly(one);
    assertThat(deliveries.last()).isEqualTo(1);
  }

  @Test
  void onlyOneHoldsTheLock() {
    try (Lock held = Lock.take(host, lock, access, "anna", Instant.EPOCH)) {
      assertThatThrownBy(() -> Lock.take(host, lock, access, "bert", Instant.EPOCH))
          .isInstanceOf(LockedException.class)
          .hasMessageContaining("anna (process " + ProcessHandle.current().pid() + ")")
          .hasMessageContaining("--take-over");
    }
    assertThat(lock).doesNotExist();
  }

  @Test
  void onlyAProvablyDeadHolderLosesIt() throws IOException {
    Identity self = host.processes().self();
    write(new Identity(self.boot(), self.pid(), self.ticks() + 1));
    Lock.take(host, lock, access, "bert", Instant.EPOCH).close();
    write(new Identity("another boot", 1, 1));
    assertThatThrownBy(() -> Lock.take(host, lock, access, "bert", Instant.EPOCH))
        .isInstanceOf(LockedException.class);
    Files.writeString(lock, "half a li");
    assertThatThrownBy(() -> Lock.take(host, lock, access, "bert", Instant.EPOCH))
        .hasMessageContaining("cannot be read");
  }

  private void write(Identity holder) throws IOException {
    Files.writeString(lock, Json.line(new Lock.Holder(holder, "anna", Instant.EPOCH)));
  }
}
