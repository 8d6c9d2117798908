package jollycrate.cli.output;

import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/** Says what takes long, where nobody watches a line that is drawn over again and again. */
final class SlowNotes {
  private static final Duration FIRST = Duration.ofSeconds(5);
  private static final Duration LATER = Duration.ofSeconds(30);

  private final Consumer<String> note;
  private ScheduledExecutorService clock;
  private ScheduledFuture<?> told;
  private String now = "";
  private long since;

  SlowNotes(Consumer<String> note) {
    this.note = note;
  }

  /** Something goes on; the same as before goes on. */
  synchronized void goesOn(String what) {
    if (what.equals(now)) {
      return;
    }
    done();
    now = what;
    since = System.nanoTime();
    if (clock == null) {
      clock = Executors.newSingleThreadScheduledExecutor(SlowNotes::daemon);
    }
    told =
        clock.scheduleAtFixedRate(
            this::tell, FIRST.toMillis(), LATER.toMillis(), TimeUnit.MILLISECONDS);
  }

  /** It came to an end. */
  synchronized void done() {
    now = "";
    if (told != null) {
      told.cancel(false);
    }
  }

  private synchronized void tell() {
    if (!now.isEmpty()) {
      long seconds = Duration.ofNanos(System.nanoTime() - since).toSeconds();
      note.accept(now.replaceFirst(" ?\\.\\.\\.$", "") + ", for " + seconds + " s now");
    }
  }

  private static Thread daemon(Runnable work) {
    Thread thread = new Thread(work, "slow notes");
    thread.setDaemon(true);
    return thread;
  }
}
