package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.host.HostException;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;

/** Settles a delivery that was found unended: takes it back before its proof, finishes it after. */
final class Recovery {
  private final Site site;
  private final Progress progress;

  Recovery(Site site, Progress progress) {
    this.site = site;
    this.progress = progress;
  }

  /** The delivery that has not ended, if there is one. */
  static Optional<Journal> unfinished(Site site) {
    return Journal.read(site.files(), site.records().journal())
        .filter(journal -> !journal.isEnded());
  }

  /** What is to be said of a delivery that has not ended. */
  static Optional<String> told(Site site) {
    return unfinished(site).map(journal -> told(site, journal.opened()));
  }

  private static String told(Site site, JournalLine.Opened opened) {
    String what =
        "delivery "
            + opened.delivery()
            + ", "
            + opened.act()
            + " of '"
            + opened.application()
            + "'";
    return site.host().processes().alive(opened.holder())
        ? what + ", is under way in process " + opened.holder().pid()
        : what + ", has not ended: 'jolly recover --on " + site.server().name() + "' settles it";
  }

  /** Settles it; what could not be settled is named. The caller holds the lock. */
  List<String> settle() {
    Optional<Journal> found = unfinished(site);
    if (found.isEmpty()) {
      return List.of();
    }
    Journal journal = found.get();
    JournalLine.Opened opened = journal.opened();
    String what = opened.act() + " of '" + opened.application() + "'";
    Ending ending = new Ending(site, journal);
    if (journal.proven().isPresent()) {
      progress.recovering(opened.delivery(), what + " was proven; it is finished now");
      return finish(ending, journal);
    }
    progress.recovering(opened.delivery(), what + " was not proven; it is taken back now");
    List<String> stuck = new TakeBack(site, journal, progress).orNameWhatIsLeft();
    if (stuck.isEmpty()) {
      ending.takenBack("found unfinished");
    }
    return stuck;
  }

  private List<String> finish(Ending ending, Journal journal) {
    try {
      ending.keep(carrier(journal));
      return List.of();
    } catch (StepFailed | HostException e) {
      return List.of("the delivery is proven, but not tidied up: " + e.getMessage());
    }
  }

  private Carrier carrier(Journal journal) {
    return new Carrier(
        site,
        journal,
        progress,
        new Interrupts(),
        placement -> List.of(),
        () -> site.stockTaker().take(List.of()));
  }
}
