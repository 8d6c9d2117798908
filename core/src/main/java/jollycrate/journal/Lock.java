package jollycrate.journal;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.Hold;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Identity;
import jollycrate.host.Life;
import jollycrate.host.Time;
import jollycrate.json.Json;
import jollycrate.stock.RecordsException;

/** The right to change a server, held by one process at a time. */
public final class Lock implements AutoCloseable {
  private static final int MOST_BYTES = 1 << 16;
  private static final Duration DEAD_HOLDER_LETS_GO_WITHIN = Duration.ofSeconds(5);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(10);

  /** Who holds a lock. */
  public record Holder(Identity process, String by, Instant since) {}

  private final Hold hold;
  private final Path file;
  private final Runnable unwatched;

  private Lock(Host host, Hold hold, Path file, String by) {
    this.hold = hold;
    this.file = file;
    this.unwatched = host.sight().whenBack(() -> renew(noted(host, by)));
  }

  private void renew(String content) {
    if (!hold.renew(content)) {
      throw new OvertakenException(file);
    }
  }

  /**
   * Takes the lock. The kernel gives it free when its holder ends; a holder that was killed may be
   * a moment behind with that.
   *
   * @throws LockedException when somebody holds it
   * @throws RecordsException when something that is no lock stands in its place
   */
  public static Lock take(Host host, Time time, Path file, Access access, String by) {
    String content = host.sight().once(() -> claim(host, file, by));
    Instant until = time.now().plus(DEAD_HOLDER_LETS_GO_WITHIN);
    while (true) {
      Optional<Hold> hold = host.processes().hold(file, content, access);
      if (hold.isPresent()) {
        return new Lock(host, hold.get(), file, by);
      }
      Optional<Holder> holder = holder(host, file);
      boolean lives =
          holder.filter(known -> host.processes().life(known.process()) != Life.GONE).isPresent();
      if (lives || time.now().isAfter(until)) {
        throw new LockedException(file, holder);
      }
      time.pause(LOOK_AGAIN);
    }
  }

  /** What whoever takes the lock writes into it. */
  private static String claim(Host host, Path file, String by) {
    host.sight().ahead(new Glance().facts(List.of(file)).processes());
    Facts facts = host.files().facts(file);
    if (facts.exists() && !facts.isFile()) {
      throw new RecordsException(
          "Cannot lock this server: a "
              + facts.type().name().toLowerCase(Locale.ROOT)
              + " stands at '"
              + file
              + "'. Nothing was touched; move it away");
    }
    return noted(host, by);
  }

  private static String noted(Host host, String by) {
    return Json.line(new Holder(host.processes().self(), by, Instant.now()));
  }

  /** Who noted himself in the lock last; he holds it if he lives. */
  public static Optional<Holder> holder(Host host, Path file) {
    return host.files().facts(file).isFile()
        ? Json.read(host.files().read(file, 0, MOST_BYTES), Holder.class)
        : Optional.empty();
  }

  /**
   * Nothing while the lock is held.
   *
   * @throws OvertakenException when it is not any more: then not a single line may be written
   */
  public void mustStand() {
    hold.mustStand(() -> new OvertakenException(file));
  }

  /**
   * Gives the lock free.
   *
   * @return what could not be done; it hinders nobody
   */
  public Optional<String> release() {
    unwatched.run();
    try {
      hold.close();
      return Optional.empty();
    } catch (HostException e) {
      return Optional.of(e.getMessage() + "; the file locks nobody out");
    }
  }

  @Override
  public void close() {
    release();
  }
}
