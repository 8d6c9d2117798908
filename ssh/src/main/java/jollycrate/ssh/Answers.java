package jollycrate.ssh;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import jollycrate.file.Trees;
import jollycrate.host.Reach;
import jollycrate.host.Words;

/**
 * Passwords by reference for {@code ssh}, which asks a small script for them (SSH_ASKPASS in
 * ssh(1)). They go through a pipe when they are asked for: they are in no file, no argument and no
 * environment. Each is given once, and to the process alone that is to have it.
 */
final class Answers {
  private static final String SCRIPT =
      """
      #!/bin/sh
      cd "${0%/*}" && printf '%s %s\\n' "$PPID" "$1" | head -n 1 >asked || exit 1
      IFS= read -r answer <answer && [ "$answer" != no ] && printf '%s\\n' "${answer#yes }"
      """;
  private static final String SCRIPT_NAME = "ask";
  private static final Duration MADE_WITHIN = Duration.ofSeconds(10);

  private final Reach reach;
  private final Path folder;
  private final RandomAccessFile asked;
  private final RandomAccessFile answer;
  private final Set<String> given = ConcurrentHashMap.newKeySet();
  private volatile Optional<RuntimeException> unread = Optional.empty();
  private final CompletableFuture<Long> asker = new CompletableFuture<>();

  private Answers(Reach reach, Path folder) throws IOException {
    this.reach = reach;
    this.folder = folder;
    this.asked = pipe("asked");
    this.answer = pipe("answer");
  }

  /** Opened for both, so that nobody waits for the other side (fifo(7)). */
  private RandomAccessFile pipe(String name) throws IOException {
    Path pipe = folder.resolve(name);
    List<String> command = List.of("mkfifo", "-m", "600", pipe.toString());
    if (OpenSsh.run(command, MADE_WITHIN).exit() != 0) {
      throw new IOException("no pipe can be made in '" + folder + "'");
    }
    return new RandomAccessFile(pipe.toFile(), "rw");
  }

  /**
   * For a machine; empty when nothing is to be answered.
   *
   * @throws IOException when no folder is there in which a script may be run
   */
  static Optional<Answers> of(Reach reach) throws IOException {
    if (reach.password().isEmpty() && reach.keyPassword().isEmpty()) {
      return Optional.empty();
    }
    List<Path> folders = new ArrayList<>(List.of(Trees.temporary()));
    for (Path shared : SharedSockets.folder().stream().toList()) {
      folders.add(Files.createTempDirectory(shared, SCRIPT_NAME));
    }
    Optional<Answers> answers = Optional.empty();
    for (Path folder : folders) {
      Path script = Files.writeString(folder.resolve(SCRIPT_NAME), SCRIPT);
      Files.setPosixFilePermissions(script, PosixFilePermissions.fromString("rwx------"));
      if (answers.isEmpty() && Files.isExecutable(script)) {
        answers = Optional.of(new Answers(reach, folder));
      } else {
        Trees.discard(folder);
      }
    }
    Answers first =
        answers.orElseThrow(
            () -> new IOException("no script can be run in " + folders + ", as passwords need it"));
    Words.inBackground(first::answer);
    return answers;
  }

  /** What a process that is to be answered finds in its environment. */
  void describe(Map<String, String> environment) {
    environment.put("SSH_ASKPASS", folder.resolve(SCRIPT_NAME).toString());
    environment.put("SSH_ASKPASS_REQUIRE", "force");
    environment.putIfAbsent("DISPLAY", "none");
  }

  /**
   * The one that gets passwords, as long as it runs; what it starts itself, as for hosts on the
   * way, gets none.
   */
  void until(Process process) {
    asker.complete(process.pid());
    process.onExit().thenRun(this::end);
  }

  /** Why a reference that was needed could not be read. */
  Optional<RuntimeException> unread() {
    return unread;
  }

  /** Whether it was asked for the password of the user. */
  boolean gavePassword() {
    return given.contains("password");
  }

  private void answer() {
    try (asked;
        answer) {
      for (String line = asked.readLine(); !line.isEmpty(); line = asked.readLine()) {
        int space = line.indexOf(' ');
        boolean toIt = line.substring(0, Math.max(0, space)).equals(asker.join().toString());
        String told = to(line.substring(space + 1), toIt).map(text -> "yes " + text).orElse("no");
        answer.write((told + "\n").getBytes(StandardCharsets.UTF_8));
      }
    } catch (IOException gone) {
      return;
    }
  }

  /** An encrypted key may be asked for by whoever needs it; the password is the machine's. */
  private Optional<String> to(String prompt, boolean toIt) {
    if (prompt.startsWith("Enter passphrase for ")) {
      return once(prompt, reach.keyPassword());
    }
    return toIt && prompt.toLowerCase(Locale.ENGLISH).contains("password")
        ? once("password", reach.password())
        : Optional.empty();
  }

  private Optional<String> once(String what, Optional<Supplier<String>> secret) {
    try {
      return secret.filter(known -> given.add(what)).map(Supplier::get);
    } catch (RuntimeException e) {
      unread = Optional.of(e);
      return Optional.empty();
    }
  }

  /** An empty question ends the answering. */
  private void end() {
    try {
      asked.write('\n');
    } catch (IOException ended) {
      return;
    } finally {
      Trees.discard(folder);
    }
  }
}
