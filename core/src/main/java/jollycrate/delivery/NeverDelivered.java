package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Nearest;
import jollycrate.journal.Deliveries;
import jollycrate.server.Cause;
import jollycrate.server.Occupant;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.watch.Site;

/**
 * Tells of an application that is to be taken away and does not stand.
 *
 * @param stock what stands instead
 */
record NeverDelivered(Site site, Stock stock, String application) {

  /** Taking away what was taken away before changes nothing; what never stood is a mistake. */
  DeliveryOutcome.Result tell(OutcomeBuilder outcome) {
    boolean once =
        new Deliveries(site.files(), site.records().deliveries())
            .all().stream().anyMatch(record -> record.application().equals(application));
    if (once) {
      outcome.note("it was removed before");
      return DeliveryOutcome.Result.UNCHANGED;
    }
    outcome.cause(
        Cause.of(
            "'" + application + "' was never delivered to '" + site.server().name() + "'", next()));
    return DeliveryOutcome.Result.BLOCKED;
  }

  private String next() {
    List<String> names =
        stock.standing().applications().stream().map(Standing.Owner::name).toList();
    return Nearest.to(application, names)
        .map(near -> "Did you mean '" + near + "'?")
        .or(this::putByHand)
        .orElse(
            names.isEmpty() ? "Nothing stands there" : "There stand: " + String.join(", ", names));
  }

  private Optional<String> putByHand() {
    return site.kind().occupants(stock).stream()
        .map(Occupant::path)
        .filter(path -> nameOf(path).equals(application))
        .findFirst()
        .map(
            path ->
                site.server().shown(path) + " was put there by somebody else: delete it by hand");
  }

  private static String nameOf(Path path) {
    return path.getFileName().toString().replaceFirst("\\.\\w+$", "");
  }
}
