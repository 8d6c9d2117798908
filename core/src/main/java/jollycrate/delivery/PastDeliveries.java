package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.app.NotDescribedException;
import jollycrate.journal.Deliveries;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.EarlierRelease;
import jollycrate.server.Standing;
import jollycrate.watch.Site;

/** What was delivered to a server so far, as its own records tell. */
public final class PastDeliveries {
  private static final int MOST_TIMES = 30;

  private final Site site;

  PastDeliveries(Site site) {
    this.site = site;
  }

  /** A line for each, oldest first. */
  public List<DeliveryRecord> all() {
    return new Deliveries(site.files(), site.records().deliveries()).all();
  }

  /**
   * One of them.
   *
   * @param number empty: the last one
   * @throws NotDescribedException when there is none of that number
   */
  public DeliveryRecord one(Optional<String> number) {
    List<DeliveryRecord> all = all();
    return all.stream()
        .filter(record -> number.filter(told -> !told.equals("" + record.delivery())).isEmpty())
        .reduce((earlier, later) -> later)
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot show "
                        + number.map(told -> "delivery '" + told + "'").orElse("the last delivery")
                        + ": there is none. 'jolly deliveries --on "
                        + site.server().name()
                        + "' lists them"));
  }

  /** Numbers of the deliveries whose release can be delivered again. */
  public List<Integer> kept() {
    return site.releases().all().stream().map(EarlierRelease::delivery).toList();
  }

  /** Numbers of the deliveries whose release stands there now. */
  public List<Integer> standing() {
    return site.stockTaker().standing().applications().stream()
        .map(Standing.Owner::delivery)
        .toList();
  }

  /**
   * What a release needed that came up.
   *
   * @param release with its version
   */
  public record Times(int delivery, String release, DeliveryOutcome.Measured measured) {}

  /** The last of those of which it was measured, oldest first. */
  public List<Times> times() {
    List<DeliveryRecord> all = all();
    List<Integer> last =
        all.stream()
            .skip(Math.max(0, all.size() - MOST_TIMES))
            .map(DeliveryRecord::delivery)
            .toList();
    return new Told(site)
        .all(last).stream()
            .flatMap(
                outcome ->
                    outcome
                        .measured()
                        .map(
                            needs ->
                                new Times(outcome.number(), outcome.aim().release().name(), needs))
                        .stream())
            .toList();
  }

  /** What was told at the end of a delivery; empty when that is not kept. */
  public Optional<DeliveryOutcome> told(int delivery) {
    return new Told(site).of(delivery);
  }
}
