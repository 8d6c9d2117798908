package jollycrate.ssh;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import jollycrate.host.Access;
import jollycrate.host.Bean;
import jollycrate.host.Content;
import jollycrate.host.Fact;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.HostLine;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Needs;
import jollycrate.host.Question;
import jollycrate.host.RealHostContract;
import jollycrate.host.Sight;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** A machine over SSH keeps what every host does; one at a time, as all see the same processes. */
@ResourceLock("processes")
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SshHostTest implements RealHostContract {
  private Sshd sshd;
  private HostLine line;

  @TempDir Path folder;

  /** The machine to log in to. */
  Sshd sshd(Path place) throws IOException {
    return new Sshd(place);
  }

  @BeforeAll
  void connect(@TempDir Path place) throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    sshd = sshd(place);
    SshLines lines = new SshLines();
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
    line = lines.open(sshd.reach());
  }

  @AfterAll
  void end() {
    if (line != null) {
      line.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  @Override
  public HostFiles files() {
    return line.host().files();
  }

  @Override
  public HostProcesses processes() {
    return line.host().processes();
  }

  @Override
  public Path folder() {
    return folder;
  }

  @Override
  public Sight sight() {
    return line.host().sight();
  }

  @Test
  void aLookIsOneTurnHoweverMuchIsReadInIt() throws IOException {
    Path file = Files.writeString(folder.resolve("file"), "x");
    Path big = Files.writeString(folder.resolve("big"), "x".repeat(1 << 20));
    long before = line.turns();
    sight()
        .once(
            () -> {
              sight().ahead(new Glance().wholes(List.of(file, big), 2 << 20).digests(List.of(big)));
              files().wholes(List.of(file, big), 2 << 20);
              files().digest(big);
              return files().facts(List.of(file, big));
            });
    assertThat(line.turns() - before).isEqualTo(1);
  }

  /** An archive of many entries, one of which is new each time. */
  private Path archive(Path file, String changed, int time) throws IOException {
    Random random = new Random(4711);
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (int i = 0; i < 100; i++) {
        byte[] bytes = new byte[20_000];
        random.nextBytes(bytes);
        ZipEntry entry = new ZipEntry("entry" + i);
        entry.setTimeLocal(LocalDateTime.of(2026, 1, 1, 0, 0, time));
        zip.putNextEntry(entry);
        zip.write(i == 50 ? changed.getBytes(StandardCharsets.UTF_8) : bytes);
        zip.closeEntry();
      }
    }
    return file;
  }

  @Test
  void ofAnArchiveOnlyWhatChangedIsSent(@TempDir Path here) throws IOException {
    Access access = files().facts(folder).access().with("rw-r-----");
    Content old = Content.of(archive(here.resolve("old"), "one", 2));
    Content fresh = Content.of(archive(here.resolve("fresh"), "another", 2));
    Path file = folder.resolve("fresh.war");
    assertThat(files().onTheWay(file, fresh)).isEqualTo(fresh.size());
    files().put(folder.resolve("old.war"), old, access);
    Path again = folder.resolve("again.war");
    Content sameTime = Content.of(archive(here.resolve("again"), "a third", 2));
    Content later = Content.of(archive(here.resolve("later"), "a third", 4));
    assertThat(files().onTheWay(again, sameTime)).isLessThan(8_000);
    assertThat(files().onTheWay(again, later)).isBetween(8_000L, 16_000L);
    for (Content content : List.of(sameTime, later)) {
      files().put(again, content, access);
      assertThat(files().digest(again)).isEqualTo(content.digest());
      assertThat(files().facts(again).access()).isEqualTo(access);
    }
  }

  /** What only looks the same is found out by its digest, and all of it is sent. */
  @Test
  void anArchiveThatIsNotWhatItSaysSparesNothing(@TempDir Path here) throws IOException {
    Access access = files().facts(folder).access().with("rw-r-----");
    Path old = archive(here.resolve("old"), "one", 2);
    byte[] bytes = Files.readAllBytes(old);
    bytes[400_000] ^= 1;
    Files.write(folder.resolve("old.war"), bytes);
    Content fresh = Content.of(archive(here.resolve("fresh"), "another", 2));
    Path file = folder.resolve("fresh.war");
    files().put(file, fresh, access);
    assertThat(files().digest(file)).isEqualTo(fresh.digest());
    assertThat(files().list(folder)).containsExactly(file, folder.resolve("old.war"));
  }

  @Test
  void aJavaProcessIsAskedByAProgramBesideIt() {
    Identity java = Host.local().processes().self();
    List<Question> questions =
        List.of(new Question("java.lang:type=Runtime", List.of("StartTime", "SpecName", "none")));
    List<Bean> beans = processes().beans(java, questions).orElse(List.of());
    assertThat(beans).hasSize(1);
    assertThat(beans.get(0).key("type")).isEqualTo("Runtime");
    assertThat(beans.get(0).number("StartTime")).isPresent();
    assertThat(beans.get(0).values())
        .containsEntry("SpecName", System.getProperty("java.vm.specification.name"))
        .hasSize(2);
    Fact<List<Bean>> shell = processes().beans(processes().self(), questions);
    assertThat(shell.unread()).isPresent();
  }

  @Test
  void manyChangesAreOneTurn() {
    Access access = files().facts(folder).access();
    long before = line.turns();
    sight()
        .together(
            () -> {
              Path at = folder;
              for (int i = 0; i < 50; i++) {
                at = at.resolve("" + i);
                files().makeFolder(at, access);
              }
            });
    assertThat(line.turns() - before).isEqualTo(1);
    files().deleteTree(folder.resolve("0"));
  }

  @Test
  void manyFactsAreOneTurn() {
    long before = line.turns();
    assertThat(files().facts(Collections.nCopies(200, folder))).hasSize(200);
    assertThat(line.turns() - before).isEqualTo(1);
  }
}
