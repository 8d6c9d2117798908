package jollycrate.journal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.Time;

/** A process that takes a lock again and again, and notices whoever holds it at the same time. */
final class LockContender {
  static final int DIED = 3;

  private LockContender() {}

  /**
   * @param args the folder with the lock, and how many turns to take; {@code die} for one that is
   *     killed while it holds the lock
   */
  public static void main(String[] args) throws IOException {
    Path folder = Path.of(args[0]);
    Host host = Host.local();
    Access access = host.files().facts(folder).access().with("rw-r--r--");
    Time time = Time.system();
    int turns = args[1].equals("die") ? 1 : Integer.parseInt(args[1]);
    while (turns > 0) {
      try (Lock lock = Lock.take(host, time, folder.resolve("lock"), access, "contender")) {
        if (args[1].equals("die")) {
          Runtime.getRuntime().halt(DIED);
        }
        Path alone = Files.createFile(folder.resolve("alone"));
        Files.writeString(
            folder.resolve("turns"),
            ProcessHandle.current().pid() + "\n",
            StandardOpenOption.CREATE,
            StandardOpenOption.APPEND);
        lock.mustStand();
        Files.delete(alone);
        turns--;
      } catch (LockedException another) {
        time.pause(Duration.ofMillis(1));
      }
    }
  }
}
