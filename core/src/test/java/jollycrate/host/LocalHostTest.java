package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The verbs of this machine keep what their contract says. */
class LocalHostTest implements RealHostContract {
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
  void whatRootStartsInAFolderOfAnotherRunsAsItsOwner() throws IOException {
    Needs.root();
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

  @Override
  public Sight sight() {
    return Sight.NEAR;
  }
}
