package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Front;
import jollycrate.journal.Lock;

/** What every change of a server passes: one at a time, and nothing unended is left behind. */
final class Gate {
  private final Site site;
  private final Progress progress;

  Gate(Site site, Progress progress) {
    this.site = site;
    this.progress = progress;
  }

  /** What is locked; unlocks when it is closed. */
  record Passage(List<Lock> locks) implements AutoCloseable {
    @Override
    public void close() {
      locks.forEach(Lock::close);
    }
  }

  /** For a change of the server alone. */
  Passage enter() {
    site.makeRecordsFolder();
    return passage(List.of(site.records().lock()));
  }

  /** For a delivery, which may change the configuration of a front too. */
  Passage enterWithFront() {
    site.makeRecordsFolder();
    List<Path> files = new ArrayList<>(List.of(site.records().lock()));
    frontLock(site).ifPresent(files::add);
    return passage(files.stream().sorted().toList());
  }

  /** The lock of the front's configuration, which several services may share. */
  static Optional<Path> frontLock(Site site) {
    return site.server()
        .front()
        .map(Front::config)
        .map(config -> config.resolveSibling("." + config.getFileName() + ".jolly-lock"));
  }

  private Passage passage(List<Path> files) {
    List<Lock> locks = new ArrayList<>();
    try {
      for (Path file : files) {
        locks.add(Lock.take(site.host(), file, site.recordAccess(), site.by(), site.time().now()));
      }
    } catch (RuntimeException e) {
      locks.forEach(Lock::close);
      throw e;
    }
    locks.forEach(Lock::sweep);
    if (Recovery.unfinished(site).isEmpty()) {
      site.sweepRecords();
    }
    return new Passage(List.copyOf(locks));
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
    try (Passage passage = enterWithFront()) {
      List<String> stuck = new Recovery(site, progress).settle();
      outcome.left(stuck);
      if (stuck.isEmpty()) {
        site.sweepRecords();
      }
      return stuck.isEmpty();
    }
  }
}
