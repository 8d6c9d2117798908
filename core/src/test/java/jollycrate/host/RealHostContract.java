package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What hosts with a real kernel keep to; the one under test shares its files with this machine. */
public interface RealHostContract extends HostProcessesContract {
  Duration LIMIT = Duration.ofSeconds(10);
  int READS_OF_WHAT_GOES = 400;

  @Test
  default void linksAreSeenAndNeverFollowed() throws IOException {
    Path real = Files.createDirectory(folder().resolve("real"));
    Files.writeString(real.resolve("kept"), "x");
    Path link = Files.createSymbolicLink(folder().resolve("link"), real);
    assertThat(files().facts(link).type()).isEqualTo(Facts.Type.LINK);
    assertThat(files().facts(link).target()).isEqualTo(real.toString());
    assertThat(files().list(link)).isEmpty();
    files().delete(link);
    assertThat(real.resolve("kept")).exists();
    assertThat(files().facts(real.resolve("kept/below")).exists()).isFalse();
    assertThatThrownBy(() -> files().delete(real)).isInstanceOf(HostException.class);
  }

  /** Nobody writes into it, so that whoever opened it would wait for ever. */
  @Test
  @Timeout(60)
  default void aPipeIsNeverWaitedFor() throws IOException, InterruptedException {
    Path pipe = folder().resolve("pipe");
    assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor()).isZero();
    List<ThrowingCallable> acts =
        List.of(
            () -> files().read(pipe, 0, 9),
            () -> files().whole(pipe, 9),
            () -> files().digest(pipe),
            () -> files().copy(pipe, folder().resolve("copy")),
            () -> files().append(pipe, new byte[1]),
            () -> files().write(pipe, 0, new byte[1]));
    acts.forEach(act -> assertThatThrownBy(act).isInstanceOf(HostException.class));
    assertThat(files().list(folder())).containsExactly(pipe);
    files().delete(pipe);
  }

  /** A server makes and deletes files while they are looked at. */
  @Test
  default void aFileThatComesAndGoesIsReadOrAbsent() throws IOException, InterruptedException {
    Path file = folder().resolve("21000.pid");
    AtomicBoolean over = new AtomicBoolean();
    Thread server =
        new Thread(
            () -> {
              while (!over.get()) {
                try {
                  Files.writeString(file, "21");
                  Files.delete(file);
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              }
            });
    server.start();
    try {
      for (int i = 0; i < READS_OF_WHAT_GOES; i++) {
        assertThat(new String(files().read(file, 0, 9))).isIn("", "21");
      }
    } finally {
      over.set(true);
      server.join();
    }
  }

  /** Any user may give a process a name with line ends in it. */
  @Test
  default void theNameOfAProcessIsNoAnswer() throws IOException {
    Path liar = folder().resolve("\n:part fd\n");
    Files.copy(Path.of("/bin/sleep"), liar, StandardCopyOption.COPY_ATTRIBUTES);
    Process lying = new ProcessBuilder(liar.toString(), "60").start();
    Process honest = new ProcessBuilder("/bin/sh", "-c", "read x", "honest-bell").start();
    try {
      assertThat(processes().programs("honest-bell").orElse(null)).hasSize(1);
    } finally {
      lying.destroy();
      honest.destroy();
    }
  }

  /** How the host is looked at. */
  Sight sight();

  @Test
  default void aLookTellsWhatEachVerbTells() throws IOException {
    Path file = Files.writeString(folder().resolve("a file.xml"), "<a/>\n");
    Path link = Files.createSymbolicLink(folder().resolve("link"), file);
    Path absent = folder().resolve("absent/below");
    List<Path> all = List.of(file, link, absent, folder());
    Glance glance =
        new Glance()
            .facts(all)
            .part(file, 1, 2)
            .wholes(List.of(file, link, absent), 99)
            .lists(all)
            .digests(List.of(file))
            .real(all)
            .place(folder())
            .processes();
    sight()
        .once(
            () -> {
              sight().ahead(glance);
              assertThat(files().facts(all))
                  .extracting(Facts::type)
                  .containsExactly(
                      Facts.Type.FILE, Facts.Type.LINK, Facts.Type.ABSENT, Facts.Type.FOLDER);
              assertThat(files().read(file, 1, 2)).asString().isEqualTo("a/");
              assertThat(files().whole(file, 99)).asString().isEqualTo("<a/>\n");
              assertThat(files().wholeIfThere(absent, 99)).isEmpty();
              assertThatThrownBy(() -> files().whole(link, 99)).hasMessageContaining("link");
              assertThat(files().list(folder())).containsExactly(file, link);
              assertThat(files().list(absent)).isEmpty();
              assertThat(files().digest(file)).hasSize(64);
              assertThat(files().real(link)).isEqualTo(files().real(file));
              assertThat(files().writable(folder())).isTrue();
              assertThat(processes().life(processes().self())).isEqualTo(Life.RUNS);
              files().append(file, "more".getBytes(StandardCharsets.UTF_8));
              assertThat(files().whole(file, 99)).asString().endsWith("more");
              return file;
            });
  }

  @Test
  default void ofChangesTogetherNoneIsMadeAfterOneThatFailed() throws IOException {
    Path first = folder().resolve("first");
    Path absent = folder().resolve("absent");
    Path last = folder().resolve("last");
    Access access = files().facts(folder()).access().with("rw-------");
    assertThatThrownBy(
            () ->
                sight()
                    .together(
                        () -> {
                          files().put(first, Content.of("1"), access);
                          files().append(first, "2".getBytes(StandardCharsets.UTF_8));
                          files().append(absent, new byte[] {1});
                          files().put(last, Content.of("3"), access);
                        }))
        .isInstanceOf(HostException.class)
        .hasMessageContaining("'" + absent + "'");
    assertThat(Files.readString(first)).isEqualTo("12");
    assertThat(last).doesNotExist();
  }

  @Test
  default void nothingIsChangedTogetherOnceALockIsLost() throws IOException {
    Path lock = folder().resolve("lock");
    Path file = folder().resolve("file");
    Access access = files().facts(folder()).access().with("rw-------");
    try (Hold hold = processes().hold(lock, "me", access).orElseThrow()) {
      sight().together(() -> hold.mustStand(IllegalStateException::new));
      Files.delete(lock);
      assertThatThrownBy(
              () ->
                  sight()
                      .together(
                          () -> {
                            hold.mustStand(() -> new IllegalStateException("lost"));
                            files().put(file, Content.of("1"), access);
                          }))
          .isInstanceOf(IllegalStateException.class);
    }
    assertThat(file).doesNotExist();
  }

  @Test
  default void aStartedProcessIsKnownByTokenAndIdentity() throws IOException {
    Path log = folder().resolve("not-there/yet/log");
    Launch launch =
        new Launch(
            List.of(
                "/bin/sh",
                "-c",
                "echo started; pwd; env; mkfifo never; read line <never",
                Launch.TOKEN),
            folder(),
            folder(),
            Map.of("PATH", System.getenv("PATH"), "GREETING", "hello"),
            List.of("GREETING"),
            log,
            List.of());
    Path note = folder().resolve("note");
    Identity identity = processes().start(launch, "token-4711", note);
    try {
      RealHostContract.until(() -> files().facts(folder().resolve("never")).exists());
      assertThat(processes().life(identity)).isEqualTo(Life.RUNS);
      assertThat(processes().programs("token-4711").orElse(List.of()))
          .extracting(Program::identity)
          .containsExactly(identity);
      assertThat(Files.readString(note).strip()).isEqualTo("" + identity.pid());
      assertThat(processes().workingFolder(identity).orElse(folder().resolve("elsewhere")))
          .isEqualTo(folder().toRealPath());
      Identity other =
          new Identity(identity.boot(), identity.space(), identity.pid(), identity.ticks() + 1);
      assertThat(processes().life(other)).isEqualTo(Life.GONE);
      processes().signal(other, HostProcesses.Signal.KILL);
      assertThat(processes().life(identity)).isEqualTo(Life.RUNS);
    } finally {
      processes().signal(identity, HostProcesses.Signal.KILL);
    }
    RealHostContract.until(() -> processes().life(identity) == Life.GONE);
    assertThat(processes().workingFolder(identity).unread()).isPresent();
    assertThat(Files.readString(log))
        .contains("started", folder().toRealPath().toString(), "GREETING=hello")
        .doesNotContain("HOME=");
  }

  @Test
  default void aProgramIsRunToItsEndOrItsLimit() {
    Ran ran = processes().run(List.of("/bin/cat"), folder(), Map.of(), "in\n", LIMIT);
    assertThat(ran).isEqualTo(new Ran(0, "in\n", ""));
    Ran late =
        processes()
            .run(List.of("/bin/sleep", "30"), folder(), Map.of(), "", Duration.ofMillis(100));
    assertThat(late.exit()).isEqualTo(-1);
  }

  @Test
  default void aProgramThatLeavesAnotherBehindIsNotWaitedForAnyLonger() {
    List<String> command = List.of("/bin/sh", "-c", "sleep 3600 & echo $!");
    Ran ran = processes().run(command, folder(), Map.of("PATH", "/usr/bin:/bin"), "", LIMIT);
    long left = Long.parseLong(ran.output().strip());
    assertThat(ProcessHandle.of(left).orElseThrow().destroy()).isTrue();
  }

  @Test
  default void aProcessOfAnotherNameSpaceIsNeitherDeadNorAlive() {
    Identity self = processes().self();
    assertThat(processes().life(self)).isEqualTo(Life.RUNS);
    Identity elsewhere = new Identity(self.boot(), "4711", self.pid(), self.ticks() + 1);
    assertThat(processes().life(elsewhere)).isEqualTo(Life.UNKNOWN);
    Identity earlierBoot = new Identity("another boot", self.space(), self.pid(), self.ticks());
    assertThat(processes().life(earlierBoot)).isEqualTo(Life.GONE);
  }

  @ParameterizedTest
  @CsvSource({"127.0.0.5, 127.0.0.5", "0.0.0.0, 127.0.0.1"})
  default void whoListensIsNamedAndWhere(String address, String reached) throws IOException {
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getByName(address))) {
      Listening found =
          processes()
              .listening(socket.getLocalPort(), address)
              .orElse(Optional.empty())
              .orElseThrow();
      assertThat(found.pid()).isEqualTo(ProcessHandle.current().pid());
      assertThat(found.program()).startsWith("java");
      assertThat(found.hostName()).isEqualTo(reached);
    }
  }

  @Test
  default void awkwardNamesAndAnyBytesPass() throws IOException {
    Access access = files().facts(folder()).access().with("rw-------");
    byte[] bytes = new byte[200_001];
    for (int i = 0; i < bytes.length; i++) {
      bytes[i] = (byte) (i * 7);
    }
    for (String name :
        List.of("it's \"$(id)\" ${x}", "-rf *", "Köln ü", " two  spaces ", "a\\nb")) {
      Path file = folder().resolve(name);
      files().put(file, Content.of(bytes), access);
      assertThat(Files.readAllBytes(file)).isEqualTo(bytes);
      assertThat(files().whole(file, 1 << 20)).isEqualTo(bytes);
      assertThat(files().list(folder())).containsExactly(file);
      assertThat(files().facts(file).size()).isEqualTo(bytes.length);
      files().move(file, folder().resolve("plain"));
      files().delete(folder().resolve("plain"));
    }
  }

  @Test
  default void whatCannotBeDoneSaysWhyAndLeavesNothing() throws IOException {
    Path folderHere = Files.createDirectory(folder().resolve("here"));
    Access access = files().facts(folder()).access();
    Content content = Content.of("x");
    assertThatThrownBy(() -> files().put(folderHere.resolve("none/a"), content, access))
        .isInstanceOf(HostException.class)
        .hasMessageContaining("none");
    assertThatThrownBy(() -> files().append(folder().resolve("absent"), new byte[1]))
        .isInstanceOf(HostException.class)
        .hasMessageContaining("there is no such file");
    assertThat(files().list(folder())).containsExactly(folderHere);
    assertThat(files().list(folderHere)).isEmpty();
    assertThat(files().free(folder())).isPositive();
    assertThat(files().writable(folder())).isTrue();
  }

  private static void until(BooleanSupplier fact) {
    long until = System.nanoTime() + LIMIT.toNanos();
    while (!fact.getAsBoolean()) {
      assertThat(System.nanoTime()).isLessThan(until);
      Time.system().pause(Duration.ofMillis(5));
    }
  }
}
