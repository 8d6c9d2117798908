package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.journal.Journal;
import jollycrate.stock.Records;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Site;

/** Records that cannot be read: kept beside the others, so that nothing of them is lost. */
final class UnreadableRecords {
  private final Site site;
  private final Records records;

  UnreadableRecords(Site site) {
    this.site = site;
    this.records = site.records();
  }

  /** Moves them aside; where they are now. */
  List<Path> setAside(Gate.Passage passage) {
    List<Path> moved = new ArrayList<>();
    if (!readable(() -> Journal.read(site.files(), records.journal()))) {
      aside(passage, records.journal(), moved);
      aside(passage, records.backups(), moved);
      aside(passage, records.standingNext(), moved);
    }
    if (!readable(() -> site.stockTaker().standing())) {
      aside(passage, records.standing(), moved);
    }
    if (!readable(() -> site.stockTaker().record())) {
      aside(passage, records.process(), moved);
    }
    return List.copyOf(moved);
  }

  private static boolean readable(Runnable look) {
    try {
      look.run();
      return true;
    } catch (RecordsException e) {
      return false;
    }
  }

  private void aside(Gate.Passage passage, Path record, List<Path> moved) {
    if (site.files().facts(record).exists()) {
      int number = 1;
      Path aside = numbered(record, number);
      while (site.files().facts(aside).exists()) {
        aside = numbered(record, ++number);
      }
      passage.mustStand();
      site.files().move(record, aside);
      moved.add(aside);
    }
  }

  private static Path numbered(Path record, int number) {
    return record.resolveSibling(record.getFileName() + ".aside-" + number);
  }
}
