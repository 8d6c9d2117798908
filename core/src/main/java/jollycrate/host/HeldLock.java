package jollycrate.host;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;

/** A lock by flock(2), held by a shell on the host that ends when its input does. */
public final class HeldLock implements Hold {
  private static final String HELD = "held ";
  private static final String ANOTHERS = "another's";
  private static final String REPLACED = "replaced";

  /**
   * Signals of the terminal reach the whole process group, so the shell ignores them: only the end
   * of its input, which is the end of whoever asked, ends it.
   */
  private static final String SCRIPT =
      """
      trap '' INT HUP TERM QUIT
      file=$1; mode=$2; owner=$3; before=$4
      umask 077
      [ -z "$before" ] || [ -f "$file" ] || { echo replaced; exit 1; }
      exec 9>>"$file" || exit 1
      flock -n 9 || { [ $? -eq 1 ] && echo "another's"; exit 1; }
      [ /proc/self/fd/9 -ef "$file" ] || { echo replaced; exit 1; }
      [ -z "$before" ] || [ "$before" = "$(cat "$file")" ] || { echo replaced; exit 1; }
      IFS= read -r content
      : >/proc/self/fd/9 && printf '%s\\n' "$content" >&9 &&
        chown "$owner" "$file" && chmod "$mode" "$file" || { rm -f "$file"; exit 1; }
      echo "held $(stat -c %d:%i "$file") $$"
      exec cat >/dev/null
      """;

  /** A shell of the host that runs a script. */
  public interface Shell {
    /** The process here that is it, or that carries its streams. */
    Process process();

    /** What it reads. */
    default OutputStream in() {
      return process().getOutputStream();
    }

    /** What it prints. */
    default InputStream out() {
      return process().getInputStream();
    }

    /** What it says of errors. */
    default InputStream errors() {
      return process().getErrorStream();
    }

    /** Whether it is known to run. */
    default boolean runs() {
      return process().isAlive();
    }

    /** Ends it, when it does not by itself now that its input has ended. */
    void end();
  }

  /** Starts such shells, and looks at the files that they hold. */
  public interface Place {
    /** Runs a script with arguments. */
    Shell start(String script, List<String> arguments) throws IOException;

    /** Device and inode of a file, {@code device:inode}; empty when none stands there. */
    String key(Path file);

    /** Nothing while that is the file that stands there, and its holder lives. */
    default void mustBe(
        Path file, String key, long holder, Supplier<? extends RuntimeException> otherwise) {
      if (!key(file).equals(key)) {
        throw otherwise.get();
      }
    }

    /** Ends a holder that was left behind when the connection to it was cut. */
    default void end(Path file, long holder) {}

    /** Why a file cannot be locked, where the shell's own words are no help. */
    Optional<HostException> refused(Path file);

    /** Deletes a file. */
    void delete(Path file);
  }

  private final Place place;
  private final Path file;
  private final Access access;
  private Shell holder;
  private String content;
  private String key;
  private long pid;

  private HeldLock(Place place, Path file, Access access) {
    this.place = place;
    this.file = file;
    this.access = access;
  }

  private HeldLock held(Shell by, String written, String said) {
    holder = by;
    content = written;
    String[] words = said.substring(HELD.length()).split(" ");
    key = words[0];
    pid = Long.parseLong(words[1]);
    return this;
  }

  /** Takes a lock; empty when somebody else holds it. */
  public static Optional<Hold> take(Place place, Path file, String content, Access access) {
    try {
      while (true) {
        Shell shell = place.start(SCRIPT, arguments(file, access, ""));
        tell(shell, content);
        String said = firstLine(shell);
        if (said.startsWith(HELD)) {
          return Optional.of(new HeldLock(place, file, access).held(shell, content, said));
        }
        String errors = new String(shell.errors().readAllBytes(), StandardCharsets.UTF_8);
        shell.end();
        if (said.equals(ANOTHERS)) {
          return Optional.empty();
        }
        if (!said.equals(REPLACED)) {
          throw place
              .refused(file)
              .orElse(new HostException("Cannot lock '" + file + "': " + lastWords(errors)));
        }
      }
    } catch (IOException e) {
      throw HostException.cannot("lock", file, e);
    }
  }

  @Override
  public boolean renew(String now) {
    place.end(file, pid);
    try {
      Shell shell = place.start(SCRIPT, arguments(file, access, content));
      tell(shell, now);
      String said = firstLine(shell);
      if (!said.startsWith(HELD)) {
        shell.end();
        return false;
      }
      held(shell, now, said);
      return true;
    } catch (IOException e) {
      throw HostException.cannot("lock", file, e);
    }
  }

  /**
   * What the script is told.
   *
   * @param before what has to stand in the file; empty when that does not matter
   */
  private static List<String> arguments(Path file, Access access, String before) {
    int mode = 0;
    for (PosixFilePermission right : PosixFilePermissions.fromString(access.mode())) {
      mode |= 0400 >> right.ordinal();
    }
    return List.of(
        file.toString(),
        Integer.toOctalString(mode),
        access.owner() + ":" + access.group(),
        before.strip());
  }

  /** A shell that could not take the lock has ended by then, and does not listen. */
  private static void tell(Shell shell, String content) {
    try {
      shell.in().write((content + "\n").getBytes(StandardCharsets.UTF_8));
      shell.in().flush();
    } catch (IOException endedBefore) {
      return;
    }
  }

  private static String firstLine(Shell shell) throws IOException {
    BufferedReader said =
        new BufferedReader(new InputStreamReader(shell.out(), StandardCharsets.UTF_8));
    return Objects.requireNonNullElse(said.readLine(), "");
  }

  private static String lastWords(String errors) {
    String last = errors.strip().lines().reduce((a, b) -> b).orElse("it cannot be written");
    return last.substring(last.lastIndexOf(": ") + 1).strip();
  }

  @Override
  public boolean stands() {
    return holder.runs() && place.key(file).equals(key);
  }

  @Override
  public void mustStand(Supplier<? extends RuntimeException> otherwise) {
    if (!holder.runs()) {
      throw otherwise.get();
    }
    place.mustBe(file, key, pid, otherwise);
  }

  @Override
  public void close() {
    try {
      if (stands()) {
        place.delete(file);
      }
    } finally {
      letGo();
    }
  }

  private void letGo() {
    try {
      holder.in().close();
    } catch (IOException ended) {
      return;
    } finally {
      holder.end();
    }
  }
}
