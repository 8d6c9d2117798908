package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The verbs of this machine keep what their contract says. */
class LocalHostTest implements HostProcessesContract {
  private static final Duration LIMIT = Duration.ofSeconds(10);

  @TempDir Path folder;
  private final Host host = Host.local();
  private final HostFiles files = host.files();
  private final HostProcesses processes = host.processes();
  private Access access;

  @Override
  public HostFiles files() {
    return files;
  }

  @Override
  public HostProcesses processes() {
    return processes;
  }

  @Override
  public Path folder() {
    return folder;
  }

  @BeforeEach
  void own() {
    access = files.facts(folder).access().with("rw-r-----");
  }

  @Test
  void aSourceThatChangesWhileItIsCopiedIsRefused() throws IOException {
    Path source = Files.writeString(folder.resolve("source"), "one");
    Content content = Content.of(source);
    Files.writeString(source, "two");
    Path target = folder.resolve("target");
    assertThatThrownBy(() -> files.put(target, content, access))
        .hasMessageContaining("the source changed while it was copied");
    assertThat(files.facts(target).exists()).isFalse();
  }

  @Test
  void aChangeBehindAnOldTimeStampIsSeen() throws IOException {
    Path file = folder.resolve("piece");
    files.put(file, Content.of("ours"), access);
    String ours = files.digest(file);
    FileTime time = Files.getLastModifiedTime(file);
    Object before = Files.getAttribute(file, "unix:ctime");
    until(
        () -> {
          rewrite(file, "text", time);
          return !before.equals(changeTime(file));
        });
    assertThat(Files.getLastModifiedTime(file)).isEqualTo(time);
    assertThat(files.digest(file)).isNotEqualTo(ours).isEqualTo(Content.of("text").digest());
  }

  private static void rewrite(Path file, String text, FileTime time) {
    try {
      Files.writeString(file, text);
      Files.setLastModifiedTime(file, time);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static Object changeTime(Path file) {
    try {
      return Files.getAttribute(file, "unix:ctime");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Test
  void linksAreSeenAndNeverFollowed() throws IOException {
    Path real = Files.createDirectory(folder.resolve("real"));
    Files.writeString(real.resolve("kept"), "x");
    Path link = Files.createSymbolicLink(folder.resolve("link"), real);
    assertThat(files.facts(link).type()).isEqualTo(Facts.Type.LINK);
    assertThat(files.facts(link).target()).isEqualTo(real.toString());
    assertThat(files.list(link)).isEmpty();
    files.delete(link);
    assertThat(real.resolve("kept")).exists();
    assertThat(files.facts(real.resolve("kept/below")).exists()).isFalse();
    assertThatThrownBy(() -> files.delete(real)).isInstanceOf(HostException.class);
  }

  @Test
  void aStartedProcessIsKnownByTokenAndIdentity() throws IOException {
    Path log = folder.resolve("log");
    Launch launch =
        new Launch(
            List.of(
                "/bin/sh",
                "-c",
                "echo started; pwd; env; mkfifo never; read line <never",
                Launch.TOKEN),
            folder,
            folder,
            Map.of("PATH", System.getenv("PATH"), "GREETING", "hello"),
            List.of("GREETING"),
            log,
            List.of());
    Path note = folder.resolve("note");
    Identity identity = processes.start(launch, "token-4711", note);
    try {
      until(() -> files.facts(folder.resolve("never")).exists());
      assertThat(processes.life(identity)).isEqualTo(Life.RUNS);
      assertThat(processes.programs("token-4711").orElse(List.of()))
          .extracting(Program::identity)
          .containsExactly(identity);
      assertThat(Files.readString(note).strip()).isEqualTo("" + identity.pid());
      Identity other =
          new Identity(identity.boot(), identity.space(), identity.pid(), identity.ticks() + 1);
      assertThat(processes.life(other)).isEqualTo(Life.GONE);
      processes.signal(other, HostProcesses.Signal.KILL);
      assertThat(processes.life(identity)).isEqualTo(Life.RUNS);
    } finally {
      processes.signal(identity, HostProcesses.Signal.KILL);
    }
    until(() -> processes.life(identity) == Life.GONE);
    assertThat(Files.readString(log))
        .contains("started", folder.toRealPath().toString(), "GREETING=hello")
        .doesNotContain("HOME=");
  }

  @Test
  void whatRootStartsInAFolderOfAnotherRunsAsItsOwner() throws IOException {
    assumeTrue(System.getProperty("user.name").equals("root"));
    assertThat(processes.accountIn(folder)).isEmpty();
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
    Path theirs = Files.createDirectory(folder.resolve("theirs"));
    Files.setOwner(
        theirs,
        theirs.getFileSystem().getUserPrincipalLookupService().lookupPrincipalByName("nobody"));
    assertThat(processes.accountIn(theirs).orElseThrow().name()).isEqualTo("nobody");
    Path log = theirs.resolve("log");
    Launch launch =
        new Launch(
            List.of("/bin/sh", "-c", "id -un; touch done", Launch.TOKEN),
            theirs,
            theirs,
            Map.of("PATH", System.getenv("PATH")),
            List.of(),
            log,
            List.of());
    processes.start(launch, "token-4712", theirs.resolve("note"));
    until(() -> files.facts(theirs.resolve("done")).exists());
    assertThat(Files.readString(log)).isEqualTo("nobody\n");
    assertThat(files.facts(log).access().owner()).isEqualTo("nobody");
  }

  private static void until(BooleanSupplier fact) {
    long until = System.nanoTime() + LIMIT.toNanos();
    while (!fact.getAsBoolean()) {
      assertThat(System.nanoTime()).isLessThan(until);
      Time.system().pause(Duration.ofMillis(5));
    }
  }

  @Test
  void aProgramIsRunToItsEndOrItsLimit() {
    Ran ran = processes.run(List.of("/bin/cat"), folder, Map.of(), "in\n", LIMIT);
    assertThat(ran).isEqualTo(new Ran(0, "in\n", ""));
    Ran late =
        processes.run(List.of("/bin/sleep", "30"), folder, Map.of(), "", Duration.ofMillis(100));
    assertThat(late.exit()).isEqualTo(-1);
  }

  @Test
  void aProgramThatLeavesAnotherBehindIsNotWaitedForAnyLonger() {
    List<String> command = List.of("/bin/sh", "-c", "sleep 3600 & echo $!");
    Ran ran = processes.run(command, folder, Map.of("PATH", "/usr/bin:/bin"), "", LIMIT);
    long left = Long.parseLong(ran.output().strip());
    assertThat(ProcessHandle.of(left).orElseThrow().destroy()).isTrue();
  }

  @Test
  void aProcessOfAnotherNameSpaceIsNeitherDeadNorAlive() {
    Identity self = processes.self();
    assertThat(processes.life(self)).isEqualTo(Life.RUNS);
    Identity elsewhere = new Identity(self.boot(), "4711", self.pid(), self.ticks() + 1);
    assertThat(processes.life(elsewhere)).isEqualTo(Life.UNKNOWN);
    Identity earlierBoot = new Identity("another boot", self.space(), self.pid(), self.ticks());
    assertThat(processes.life(earlierBoot)).isEqualTo(Life.GONE);
  }

  @ParameterizedTest
  @CsvSource({"127.0.0.5, 127.0.0.5", "0.0.0.0, 127.0.0.1"})
  void whoListensIsNamedAndWhere(String address, String reached) throws IOException {
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getByName(address))) {
      Listening found =
          processes.listening(socket.getLocalPort()).orElse(Optional.empty()).orElseThrow();
      assertThat(found.pid()).isEqualTo(ProcessHandle.current().pid());
      assertThat(found.program()).startsWith("java");
      assertThat(found.hostName()).isEqualTo(reached);
    }
  }
}
