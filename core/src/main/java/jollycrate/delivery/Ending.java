package jollycrate.delivery;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.journal.Deliveries;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.json.Json;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.stock.Records;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** Brings a delivery to its end: our records follow, copies of earlier files go. */
final class Ending {
  private final Site site;
  private final Journal journal;

  Ending(Site site, Journal journal) {
    this.site = site;
    this.journal = journal;
  }

  /** Lays down what we shall answer for once the delivery is proven. */
  void prepare(Standing next) {
    site.files()
        .put(site.records().standingNext(), Content.of(Json.line(next)), site.recordAccess());
  }

  /** After the proof; may have been begun before. What could not be done is named. */
  List<String> keptOrWhatIsLeft(Carrier carrier) {
    return orWhatIsLeft(
        "the delivery is proven and stands, but not tidied up: ",
        () -> site.host().sight().together(() -> keep(carrier)));
  }

  private void keep(Carrier carrier) {
    Records records = site.records();
    if (site.files().facts(records.standingNext()).exists()) {
      site.files().move(records.standingNext(), records.standing());
    }
    carrier.tidy(journal.proven().orElseThrow().tidy());
    site.releases().prune(site.server().keeping(), site.stockTaker().standing());
    end(kept(journal.opened()), "", JournalLine.Outcome.KEPT);
  }

  private static String kept(JournalLine.Opened opened) {
    if (opened.application().isEmpty()) {
      return "changed";
    }
    return switch (opened.act()) {
      case "stop" -> "stopped";
      case "start" -> "started";
      case "undeploy" -> "removed";
      default -> "delivered";
    };
  }

  /** After everything was taken back. What could not be recorded of that is named. */
  List<String> takenBackOrWhatIsLeft(String reason) {
    return orWhatIsLeft(
        "everything is as it was before, but that could not be recorded: ",
        () -> {
          HostFiles files = site.files();
          files.delete(HostFiles.beside(site.records().standingNext()));
          files.delete(site.records().standingNext());
          site.releases().forget(journal.opened().delivery(), site.stockTaker().standing());
          end("taken back", reason, JournalLine.Outcome.TAKEN_BACK);
        });
  }

  private static List<String> orWhatIsLeft(String what, Runnable act) {
    try {
      act.run();
      return List.of();
    } catch (StepFailed | HostException | RecordsException e) {
      return List.of(what + e.getMessage());
    }
  }

  private void end(String outcome, String reason, JournalLine.Outcome ended) {
    JournalLine.Opened opened = journal.opened();
    boolean removal = opened.placement() == null;
    Optional<Placement> placement =
        Optional.ofNullable(removal ? opened.earlier() : opened.placement());
    new Deliveries(site.files(), site.records().deliveries())
        .add(
            new DeliveryRecord(
                opened.delivery(),
                opened.at(),
                opened.act(),
                opened.application(),
                placement.map(at -> at.release().version()).orElse(""),
                removal ? "" : opened.placement().release().digest(),
                opened.description(),
                opened.revision(),
                opened.restores(),
                placement.map(Placement::address).orElse(""),
                outcome,
                reason,
                opened.by(),
                Duration.between(opened.at(), site.time().now()).toMillis()),
            site.recordAccess());
    site.files().deleteTree(site.records().backups());
    journal.write(new JournalLine.Ended(ended));
  }
}
