package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Front;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.journal.Lock;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

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
    /** Nothing while every lock is held; asked before every line of a journal. */
    void mustStand() {
      locks.forEach(Lock::mustStand);
    }

    @Override
    public void close() {
      locks.forEach(Lock::close);
    }
  }

  /** For a change of the server alone. */
  Passage enter() {
    return swept(passage(List.of(site.records().lock())));
  }

  /** For whoever repairs records that may not be readable. */
  Passage enterAsItIs() {
    return passage(locks(site));
  }

  /** For a delivery, which may change the configuration of a front too. */
  Passage enterWithFront() {
    return swept(enterAsItIs());
  }

  /** The locks of a delivery: of the server, and of a front that several services may share. */
  static List<Path> locks(Site site) {
    List<Path> files = new ArrayList<>(List.of(site.records().lock()));
    site.server()
        .front()
        .map(Front::config)
        .map(config -> config.resolveSibling("." + config.getFileName() + ".jolly-lock"))
        .ifPresent(files::add);
    return files.stream().sorted().toList();
  }

  private Passage passage(List<Path> files) {
    Access access = site.host().sight().once(this::recordAccess);
    List<Lock> locks = new ArrayList<>();
    try {
      for (Path file : files) {
        locks.add(Lock.take(site.host(), site.time(), file, access, site.by()));
      }
    } catch (Throwable e) {
      locks.forEach(Lock::close);
      throw e;
    }
    return new Passage(List.copyOf(locks));
  }

  private Access recordAccess() {
    site.host()
        .sight()
        .ahead(new Glance().facts(List.of(site.server().folder(), site.server().records())));
    Access access = site.recordAccess();
    site.makeRecordsFolder();
    return access;
  }

  private Passage swept(Passage passage) {
    try {
      site.host().sight().once(this::sweep);
      return passage;
    } catch (Throwable e) {
      passage.close();
      throw e;
    }
  }

  private boolean sweep() {
    site.host().sight().ahead(Recovery.glance(site).lists(List.of(site.records().folder())));
    boolean ended = Recovery.unfinished(site).isEmpty();
    if (ended) {
      site.sweepRecords();
    }
    return ended;
  }

  /** Recovers first; a look only is told that it should be done. */
  boolean settled(OutcomeBuilder outcome, boolean onlyLook) {
    return isSettled(outcome, onlyLook) || settle(outcome);
  }

  /** Whether nothing has to be recovered first; a look only is told of what should be. */
  boolean isSettled(OutcomeBuilder outcome, boolean onlyLook) {
    Optional<String> unended = Recovery.told(site);
    unended.filter(told -> onlyLook).ifPresent(outcome::note);
    return onlyLook || unended.isEmpty();
  }

  /** Recovers; false when something is stuck. */
  boolean settle(OutcomeBuilder outcome) {
    try (Passage passage = enterWithFront()) {
      List<String> stuck = new Recovery(site, progress, passage).settle();
      outcome.left(stuck);
      if (stuck.isEmpty()) {
        site.sweepRecords();
      }
      return stuck.isEmpty();
    }
  }
}
