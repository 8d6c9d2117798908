package jollycrate.host;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** A lock of this machine: flock(2), held by a child that ends when its input does. */
final class LocalHold implements Hold {
  private static final Map<String, String> PROGRAMS =
      Map.of("PATH", "/usr/bin:/bin", "LC_ALL", "C");
  private static final String HELD = "held";
  private static final String ANOTHERS = "another's";
  private static final String REPLACED = "replaced";
  private static final long ENDS_WITHIN_SECONDS = 5;

  /**
   * Signals of the terminal reach the whole process group, so the child ignores them: only the end
   * of its input, which is the end of whoever asked, ends it.
   */
  private static final String SCRIPT =
      """
      trap '' INT HUP TERM QUIT
      file=$1; mode=$2; owner=$3
      umask 077
      exec 9>>"$file" || exit 1
      flock -n 9 || { [ $? -eq 1 ] && echo "another's"; exit 1; }
      [ /proc/self/fd/9 -ef "$file" ] || { echo replaced; exit 1; }
      IFS= read -r content
      : >/proc/self/fd/9 && printf '%s\\n' "$content" >&9 &&
        chown "$owner" "$file" && chmod "$mode" "$file" || { rm -f "$file"; exit 1; }
      echo held
      exec cat >/dev/null
      """;

  private final Process holder;
  private final Path file;
  private final Object key;

  private LocalHold(Process holder, Path file, Object key) {
    this.holder = holder;
    this.file = file;
    this.key = key;
  }

  /** Takes a lock; empty when somebody else holds it. */
  static Optional<Hold> take(Path file, String content, Access access) {
    try {
      while (true) {
        Process child = child(file, access);
        tell(child, content);
        String said = firstLine(child);
        if (said.equals(HELD)) {
          return Optional.of(held(child, file));
        }
        String errors = new String(child.getErrorStream().readAllBytes(), StandardCharsets.UTF_8);
        child.destroyForcibly();
        if (said.equals(ANOTHERS)) {
          return Optional.empty();
        }
        if (!said.equals(REPLACED) && !Files.isWritable(file.getParent())) {
          throw new AccessDeniedException(file.toString());
        }
        if (!said.equals(REPLACED)) {
          throw new HostException("Cannot lock '" + file + "': " + lastWords(errors));
        }
      }
    } catch (IOException e) {
      throw HostException.cannot("lock", file, e);
    }
  }

  private static LocalHold held(Process child, Path file) throws IOException {
    try {
      return new LocalHold(child, file, keyOf(file));
    } catch (IOException e) {
      child.destroyForcibly();
      throw e;
    }
  }

  private static Process child(Path file, Access access) throws IOException {
    int mode = 0;
    for (PosixFilePermission right : PosixFilePermissions.fromString(access.mode())) {
      mode |= 0400 >> right.ordinal();
    }
    ProcessBuilder builder =
        new ProcessBuilder(
            List.of(
                "/bin/sh",
                "-c",
                SCRIPT,
                "jolly-lock",
                file.toString(),
                Integer.toOctalString(mode),
                access.owner() + ":" + access.group()));
    builder.environment().clear();
    builder.environment().putAll(PROGRAMS);
    return builder.start();
  }

  /** A child that could not take the lock has ended by then, and does not listen. */
  private static void tell(Process child, String content) {
    try {
      child.getOutputStream().write((content + "\n").getBytes(StandardCharsets.UTF_8));
      child.getOutputStream().flush();
    } catch (IOException endedBefore) {
      return;
    }
  }

  private static String firstLine(Process child) throws IOException {
    BufferedReader said =
        new BufferedReader(new InputStreamReader(child.getInputStream(), StandardCharsets.UTF_8));
    return Objects.requireNonNullElse(said.readLine(), "");
  }

  private static String lastWords(String errors) {
    String last = errors.strip().lines().reduce((a, b) -> b).orElse("it cannot be written");
    return last.substring(last.lastIndexOf(": ") + 1).strip();
  }

  private static Object keyOf(Path file) throws IOException {
    return Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS)
        .fileKey();
  }

  @Override
  public boolean stands() {
    try {
      return holder.isAlive() && keyOf(file).equals(key);
    } catch (NoSuchFileException e) {
      return false;
    } catch (IOException e) {
      throw HostException.cannot("look at", file, e);
    }
  }

  @Override
  public void close() {
    try {
      if (stands()) {
        Files.delete(file);
      }
    } catch (IOException e) {
      throw HostException.cannot("delete", file, e);
    } finally {
      letGo();
    }
  }

  private void letGo() {
    try {
      holder.getOutputStream().close();
      if (!holder.waitFor(ENDS_WITHIN_SECONDS, TimeUnit.SECONDS)) {
        holder.destroyForcibly();
      }
    } catch (IOException ended) {
      holder.destroyForcibly();
    } catch (InterruptedException e) {
      holder.destroyForcibly();
      Thread.currentThread().interrupt();
    }
  }
}
