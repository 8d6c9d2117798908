package jollycrate.journal;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.Identity;
import jollycrate.server.Json;

/** The right to change a server, held by one process at a time. */
public final class Lock implements AutoCloseable {
  private static final int MOST_BYTES = 1 << 16;

  /** Who holds a lock. */
  public record Holder(Identity process, String by, Instant since) {}

  private final Host host;
  private final Path file;

  private Lock(Host host, Path file) {
    this.host = host;
    this.file = file;
  }

  /**
   * Takes the lock, also from a holder who is provably dead: started in this boot, and that very
   * process is gone.
   *
   * @throws LockedException when somebody holds it, or may hold it
   */
  public static Lock take(Host host, Path file, Access access, String by, Instant now) {
    byte[] content =
        Json.line(new Holder(host.processes().self(), by, now)).getBytes(StandardCharsets.UTF_8);
    while (!host.files().claim(file, content, access)) {
      byte[] found = host.files().read(file, 0, MOST_BYTES);
      Optional<Holder> holder = Json.read(found, Holder.class);
      if (found.length > 0 && (holder.isEmpty() || !isDead(host, holder.get()))) {
        throw new LockedException(file, holder);
      }
      remove(host, file, found);
    }
    return new Lock(host, file);
  }

  /** Removes a lock whoever holds it. */
  public static void breakOpen(Host host, Path file) {
    host.files().delete(file);
  }

  /** Who holds the lock now. */
  public static Optional<Holder> holder(Host host, Path file) {
    return Json.read(host.files().read(file, 0, MOST_BYTES), Holder.class);
  }

  /** Whether the holder is provably dead. */
  public static boolean isDead(Host host, Holder holder) {
    Identity process = holder.process();
    return process.boot().equals(host.processes().boot()) && !host.processes().alive(process);
  }

  /** Deletes what others left beside a lock of ours when they were killed while they took it. */
  public void sweep() {
    for (Path path : host.files().list(file.getParent())) {
      if (path.getFileName().toString().startsWith(aside(file))) {
        host.files().delete(path);
      }
    }
  }

  private static String aside(Path file) {
    return file.getFileName() + ".stale-";
  }

  /** Moves a dead holder's lock aside; puts it back when it was another one by then. */
  private static void remove(Host host, Path file, byte[] expected) {
    if (expected.length == 0) {
      return;
    }
    Path aside = file.resolveSibling(aside(file) + host.processes().self().pid());
    host.files().move(file, aside);
    byte[] moved = host.files().read(aside, 0, MOST_BYTES);
    if (!Arrays.equals(moved, expected)) {
      host.files().move(aside, file);
      return;
    }
    host.files().delete(aside);
  }

  @Override
  public void close() {
    host.files().delete(file);
  }
}
