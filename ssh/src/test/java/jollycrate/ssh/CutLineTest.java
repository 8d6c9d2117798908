package jollycrate.ssh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.HostLine;
import jollycrate.host.Identity;
import jollycrate.host.Life;
import jollycrate.host.LineCutException;
import jollycrate.host.Needs;
import jollycrate.host.Time;
import jollycrate.journal.Lock;
import jollycrate.journal.OvertakenException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A connection that is cut is taken up again, where that leaves nothing open; to a real server. */
class CutLineTest {
  /** Where a transfer that begins anew is seen first. */
  private static final int FIRST_PIECE = 1 << 16;

  @TempDir Path place;
  private final SshLines lines = new SshLines();
  private Sshd sshd;
  private Path file;

  @BeforeEach
  void start() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    sshd = new Sshd(place);
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
    file = place.resolve("lock");
  }

  @AfterEach
  void end() {
    if (sshd != null) {
      sshd.close();
    }
  }

  private HostLine open() {
    return lines.open(sshd.reach());
  }

  @Test
  void aCutLineIsTakenUpAgainWithItsLocks() {
    try (HostLine line = open()) {
      Host host = line.host();
      Access access = host.files().facts(place).access().with("rw-r-----");
      Identity before = host.processes().self();
      try (Lock lock = Lock.take(host, Time.system(), file, access, "rita")) {
        sshd.cut();
        assertThat(host.files().facts(place).isFolder()).isTrue();
        assertThat(host.processes().self()).isNotEqualTo(before);
        assertThat(host.processes().life(before)).isEqualTo(Life.GONE);
        lock.mustStand();
        assertThat(Lock.holder(host, file).map(Lock.Holder::process))
            .contains(host.processes().self());
        try (HostLine another = open()) {
          assertThat(another.host().processes().hold(file, "robin", access)).isEmpty();
        }
        sshd.cut();
        assertThat(host.files().list(place)).contains(file);
        lock.mustStand();
      }
      assertThat(file).doesNotExist();
    }
  }

  @Test
  void whoHadTheLockMeanwhileKeepsIt() {
    try (HostLine line = open()) {
      Host host = line.host();
      Access access = host.files().facts(place).access().with("rw-r-----");
      try (Lock lock = Lock.take(host, Time.system(), file, access, "rita")) {
        sshd.cut();
        try (HostLine another = open()) {
          Lock.take(another.host(), Time.system(), file, access, "robin").close();
        }
        assertThatThrownBy(() -> host.files().facts(place)).isInstanceOf(OvertakenException.class);
        assertThatThrownBy(lock::mustStand).isInstanceOf(OvertakenException.class);
      }
    }
  }

  /** Nobody knows whether it was made, so it is told and not made again. */
  @Test
  void aChangeThatWasUnderWayIsTold() throws Exception {
    Path pipe = place.resolve("pipe");
    assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor()).isZero();
    Path source = Files.writeString(place.resolve("source"), "ring");
    readsSlowly(source, pipe);
    Thread cutter =
        new Thread(
            () -> {
              try (OutputStream opensOnceItIsRead = Files.newOutputStream(pipe)) {
                sshd.cut();
              } catch (IOException e) {
                throw new UncheckedIOException(e);
              }
            });
    try (HostLine line = open()) {
      HostFiles files = line.host().files();
      cutter.start();
      assertThatThrownBy(() -> files.copy(source, file)).isInstanceOf(LineCutException.class);
      cutter.join();
      assertThat(files.facts(file).exists()).isFalse();
    }
  }

  /** A server on whose machine a file is read only when somebody opens a pipe. */
  private void readsSlowly(Path source, Path pipe) throws IOException {
    sshd.close();
    Path cat = Files.createDirectory(place.resolve("tools")).resolve("cat");
    Files.writeString(
        cat,
        "#!/bin/sh\n[ \"$1\" != '"
            + source
            + "' ] || read -r line < '"
            + pipe
            + "'\n"
            + "exec /bin/cat \"$@\"\n");
    assertThat(cat.toFile().setExecutable(true)).isTrue();
    String path = "PATH=" + cat.getParent() + ":/usr/bin:/bin";
    sshd = new Sshd(Files.createDirectory(place.resolve("slow")), path, "");
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
  }

  @Test
  void aTransferGoesOnWhereItWasCut() throws IOException {
    byte[] bytes = new byte[6 << 20];
    new Random(1).nextBytes(bytes);
    Path source = Files.write(place.resolve("source"), bytes);
    AtomicLong cutAt = new AtomicLong();
    AtomicLong wentOnAt = new AtomicLong();
    try (HostLine line = open()) {
      HostFiles files = line.host().files();
      Content content =
          Content.of(source)
              .watched(
                  sent -> {
                    if (cutAt.get() > 0) {
                      wentOnAt.compareAndSet(0, sent);
                    } else if (sent > bytes.length / 2) {
                      cutAt.set(sent);
                      sshd.cut();
                    }
                  });
      files.put(file, content, files.facts(source).access());
      assertThat(file).hasBinaryContent(bytes);
      assertThat(cutAt.get()).isPositive();
      assertThat(wentOnAt.get()).isGreaterThan(FIRST_PIECE);
      assertThat(HostFiles.beside(file)).doesNotExist();
    }
  }
}
