package jollycrate.journal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.Time;
import jollycrate.json.Json;
import jollycrate.server.Part;
import jollycrate.server.Placement;
import jollycrate.server.Swap;
import jollycrate.step.State;
import jollycrate.step.Step;
import jollycrate.stock.RecordsException;
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
            JournalLine.FORMAT,
            3,
            "deploy",
            "shop",
            Instant.EPOCH,
            "anna",
            host.processes().self(),
            "",
            "",
            0,
            Swap.LIVE,
            null,
            null,
            "",
            List.of(),
            List.of(),
            true);
    return Journal.open(host.files(), file, access, opened, () -> {});
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

  /** As it was written before servers left things behind, or marks. */
  @Test
  void linesOfAnEarlierVersionAreReadStill() throws IOException {
    Files.writeString(
        file,
        """
        {"line":"opened","format":1,"delivery":9,"act":"undeploy","application":"a",\
        "at":"2026-11-27T10:24:20Z","by":"root","holder":{"boot":"b","space":"s","pid":1,"ticks":1},\
        "description":"","revision":"","restores":0,"swap":"LIVE","placement":null,\
        "earlier":{"application":"a","version":"1","digest":"d","packages":[],\
        "listener":"main","contextPath":"/a","base":"http://h/a/","direct":"http://h/a/",\
        "switchPath":"/srv/a.xml","traces":["/srv/a"],"notice":"PT3S","startsWithin":"PT1M"},\
        "serverRan":true}
        """);
    JournalLine.Opened read = Journal.read(host.files(), file).orElseThrow().opened();
    assertThat(read.others()).isEmpty();
    assertThat(read.ailed()).isEmpty();
    assertThat(read.earlier().made()).isEqualTo(Placement.Made.of(List.of(Path.of("/srv/a"))));
  }

  @Test
  void aTornLineCountsAsNotWrittenAndSpoilsNothing() throws IOException {
    open().write(new JournalLine.Proven(List.of()));
    String whole = Files.readString(file).stripTrailing();
    Files.writeString(file, whole.substring(0, whole.length() - 5) + "\n".repeat(99));
    Journal torn = Journal.read(host.files(), file).orElseThrow();
    assertThat(torn.proven()).isEmpty();
    torn.write(new JournalLine.Ended(JournalLine.Outcome.TAKEN_BACK));
    Journal again = Journal.read(host.files(), file).orElseThrow();
    assertThat(again.isEnded()).isTrue();
    assertThat(again.proven()).isEmpty();
  }

  @Test
  void aLineInTheMiddleThatCannotBeReadIsNeverPassedOver() throws IOException {
    Journal journal = open();
    journal.write(new JournalLine.Done(1));
    journal.write(new JournalLine.Proven(List.of()));
    String whole = Files.readString(file).stripTrailing();
    String first = whole.lines().findFirst().orElseThrow();
    List<String> spoilt =
        List.of(
            "",
            "rubbish",
            whole.replace("\"done\"", "\"d"),
            whole.replaceFirst("\"format\":1", "\"format\":2"),
            whole.substring(first.length() + 1),
            first.substring(0, 20));
    for (String text : spoilt) {
      Files.writeString(file, text);
      assertThatThrownBy(() -> Journal.read(host.files(), file))
          .as(text)
          .isInstanceOf(RecordsException.class)
          .hasMessageContaining(file.toString());
    }
  }

  @Test
  void linesFitIntoTheRoomThatIsThereFromTheBeginning() throws IOException {
    Journal journal = open();
    long size = Files.size(file);
    for (int i = 1; i < 100; i++) {
      journal.write(new JournalLine.Undone(i));
    }
    assertThat(Files.size(file)).isEqualTo(size);
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
            "",
            0,
            "http://x",
            "delivered",
            "",
            "anna",
            5);
    deliveries.add(one, access);
    String withoutRevision = Json.line(one).replace("\"revision\":\"\",", "");
    assertThat(withoutRevision).isNotEqualTo(Json.line(one));
    Files.writeString(
        folder.resolve("deliveries.jsonl"), withoutRevision + "\n{\"delivery\":2,\"at");
    deliveries.add(one, access);
    assertThat(deliveries.all()).containsExactly(one);
    assertThat(deliveries.last()).isEqualTo(1);
  }

  @Test
  void whoHoldsTheLockIsNamed() {
    try (Lock held = Lock.take(host, Time.system(), lock, access, "anna")) {
      assertThatThrownBy(() -> Lock.take(host, Time.system(), lock, access, "bert"))
          .isInstanceOf(LockedException.class)
          .hasMessageContaining("anna (process " + ProcessHandle.current().pid() + ")")
          .hasMessageContaining("--take-over");
      held.mustStand();
    }
    assertThat(lock).doesNotExist();
  }

  @Test
  void whatADeadHolderLeftLocksNobodyOut() throws IOException {
    for (String left : List.of("", "half a li", "{}")) {
      Files.writeString(lock, left);
      Lock.take(host, Time.system(), lock, access, "bert").close();
      assertThat(lock).doesNotExist();
    }
    Files.createDirectory(lock);
    assertThatThrownBy(() -> Lock.take(host, Time.system(), lock, access, "bert"))
        .isInstanceOf(RecordsException.class)
        .hasMessageContaining("a folder stands at");
  }

  /** Four processes meet the lock of one that was killed; never two of them hold it at once. */
  @Test
  void contendersForADeadLockTakeTurns() throws Exception {
    assertThat(contender("die").waitFor()).isEqualTo(LockContender.DIED);
    assertThat(lock).exists();
    List<Process> contenders = new ArrayList<>();
    try {
      for (int i = 0; i < 4; i++) {
        contenders.add(contender("30"));
      }
      for (Process contender : contenders) {
        String words = new String(contender.getInputStream().readAllBytes());
        assertThat(contender.waitFor()).as(words).isZero();
      }
    } finally {
      contenders.forEach(Process::destroyForcibly);
    }
    assertThat(Files.readString(folder.resolve("turns")).lines().count()).isEqualTo(4 * 30);
    assertThat(lock).doesNotExist();
  }

  private Process contender(String turns) throws IOException {
    return new ProcessBuilder(
            System.getProperty("java.home") + "/bin/java",
            "-XX:TieredStopAtLevel=1",
            "-cp",
            System.getProperty("java.class.path"),
            LockContender.class.getName(),
            folder.toString(),
            turns)
        .redirectErrorStream(true)
        .start();
  }
}
