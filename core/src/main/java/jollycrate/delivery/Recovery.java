package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.host.Glance;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** Settles a delivery that was found unended: takes it back before its proof, finishes it after. */
final class Recovery {
  private final Site site;
  private final Progress progress;
  private final Gate.Passage passage;

  Recovery(Site site, Progress progress, Gate.Passage passage) {
    this.site = site;
    this.progress = progress;
    this.passage = passage;
  }

  /**
   * The delivery that has not ended, if there is one; to be read only.
   *
   * @throws RecordsException when that cannot be told
   */
  static Optional<Journal> unfinished(Site site) {
    return Journal.read(site.files(), site.records().journal())
        .filter(journal -> !journal.isEnded());
  }

  /** What {@link #unfinished} is going to read. */
  static Glance glance(Site site) {
    return Journal.glance(site.records().journal());
  }

  /** What is to be said of a delivery that has not ended. */
  static Optional<String> told(Site site) {
    return unfinished(site).map(journal -> told(site, journal.opened()));
  }

  private static String told(Site site, JournalLine.Opened opened) {
    String what = "delivery " + opened.delivery() + ", " + opened.told();
    String settles = "'jolly recover --on " + site.server().name() + "' settles it";
    long pid = opened.holder().pid();
    return switch (site.host().processes().life(opened.holder())) {
      case RUNS -> what + ", is under way in process " + pid;
      case GONE -> what + ", has not ended: " + settles;
      case UNKNOWN ->
          what
              + ", has not ended; whether process "
              + pid
              + " is still at it cannot be told from here. If not, "
              + settles;
    };
  }

  /** Settles it; what could not be settled is named. The caller holds the lock. */
  List<String> settle() {
    Optional<Journal> found =
        Journal.read(site.files(), site.records().journal(), passage::mustStand)
            .filter(journal -> !journal.isEnded());
    if (found.isEmpty()) {
      return List.of();
    }
    Journal journal = found.get();
    JournalLine.Opened opened = journal.opened();
    String what = opened.told();
    Ending ending = new Ending(site, journal);
    if (journal.proven().isPresent()) {
      progress.recovering(opened.delivery(), what + " was proven; it is finished now");
      return ending.keptOrWhatIsLeft(Carrier.toFinish(site, journal, progress));
    }
    progress.recovering(opened.delivery(), what + " was not proven; it is taken back now");
    TakeBack back = new TakeBack(site, journal, progress, false);
    List<String> stuck = back.orNameWhatIsLeft();
    back.stays().forEach(told -> progress.recovering(opened.delivery(), told));
    return stuck.isEmpty() ? ending.takenBackOrWhatIsLeft("found unfinished") : stuck;
  }
}
