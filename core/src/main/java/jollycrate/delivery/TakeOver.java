package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Life;
import jollycrate.journal.Lock;
import jollycrate.journal.LockedException;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** Ends whoever holds the locks of a server, so that what he left unended can be settled. */
final class TakeOver {
  private static final Duration TAKES_BACK_WITHIN = Duration.ofSeconds(120);
  private static final Duration ENDS_WITHIN = Duration.ofSeconds(10);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

  private final Site site;
  private final Progress progress;
  private final HostProcesses processes;

  TakeOver(Site site, Progress progress) {
    this.site = site;
    this.progress = progress;
    this.processes = site.host().processes();
  }

  /**
   * Asks every holder to end, which makes him take back what he was doing; ends him when he does
   * not; returns when all of them are provably gone.
   *
   * @throws LockedException when one of them is nobody whom this machine shows
   */
  void endHolders() {
    for (Path lock : Gate.locks(site)) {
      Optional<Lock.Holder> holder = Lock.holder(site.host(), lock);
      if (holder.isPresent()) {
        end(holder.get());
      }
    }
  }

  private void end(Lock.Holder holder) {
    Identity process = holder.process();
    if (processes.life(process) == Life.UNKNOWN) {
      throw new LockedException(
          "Cannot take over from "
              + holder.by()
              + ": whether process "
              + process.pid()
              + " runs cannot be told from here. End it where it was started");
    }
    processes.signal(process, HostProcesses.Signal.TERM);
    if (!gone(process, TAKES_BACK_WITHIN)) {
      processes.signal(process, HostProcesses.Signal.KILL);
      if (!gone(process, ENDS_WITHIN)) {
        throw new LockedException(
            "Cannot take over from "
                + holder.by()
                + ": process "
                + process.pid()
                + " does not end");
      }
    }
  }

  private boolean gone(Identity process, Duration limit) {
    String what = "process " + process.pid() + " to take back what it was doing";
    return site.time()
        .until(
            () -> processes.life(process) == Life.GONE,
            limit,
            LOOK_AGAIN,
            () -> progress.waitingFor(what));
  }
}
