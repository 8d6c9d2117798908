package jollycrate.delivery;

import java.util.List;
import jollycrate.journal.Lock;

/** What every change of a server passes: one at a time, and nothing unended is left behind. */
final class Gate {
  private final Site site;
  private final Progress progress;

  Gate(Site site, Progress progress) {
    this.site = site;
    this.progress = progress;
  }

  Lock enter() {
    site.makeRecordsFolder();
    Lock lock =
        Lock.take(
            site.host(), site.records().lock(), site.recordAccess(), site.by(), site.time().now());
    if (Recovery.unfinished(site).isEmpty()) {
      site.sweepRecords();
    }
    return lock;
  }

  /** Recovers first; a look only is told that it should be done. */
  boolean settled(OutcomeBuilder outcome, boolean onlyLook) {
    if (Recovery.unfinished(site).isEmpty()) {
      return true;
    }
    if (onlyLook) {
      outcome.note(Recovery.told(site).orElse(""));
      return true;
    }
    try (Lock lock = enter()) {
      List<String> stuck = new Recovery(site, progress).settle();
      outcome.left(stuck);
      if (stuck.isEmpty()) {
        site.sweepRecords();
      }
      return stuck.isEmpty();
    }
  }
}
