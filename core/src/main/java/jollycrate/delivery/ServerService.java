package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.journal.Deliveries;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.Journal;
import jollycrate.journal.Lock;
import jollycrate.server.Placement;
import jollycrate.server.RecordsException;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** One server apart from its applications: its process, its records, and what is left unended. */
public final class ServerService {
  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Gate gate;

  /** For one server. */
  public ServerService(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
    this.gate = new Gate(site, progress);
  }

  /**
   * Settles a delivery that was found unended.
   *
   * @param takeOver also when the lock's holder cannot be proven dead
   * @return empty when nothing was to be settled
   */
  public Optional<DeliveryOutcome> recover(boolean takeOver) {
    Optional<Journal> unfinished = Recovery.unfinished(site);
    if (takeOver) {
      Lock.breakOpen(site.host(), site.records().lock());
    }
    if (unfinished.isEmpty()) {
      if (site.files().facts(site.server().records()).exists()) {
        gate.enter().close();
      }
      return Optional.empty();
    }
    OutcomeBuilder outcome =
        new OutcomeBuilder(
            "recover",
            unfinished.get().opened().application(),
            site.server().name(),
            site.time().now());
    boolean proven = unfinished.get().proven().isPresent();
    outcome.number(unfinished.get().opened().delivery());
    if (!gate.settled(outcome, false)) {
      return Optional.of(outcome.end(DeliveryOutcome.Result.STUCK, site.time().now()));
    }
    return Optional.of(
        outcome.end(
            proven ? DeliveryOutcome.Result.DELIVERED : DeliveryOutcome.Result.TAKEN_BACK,
            site.time().now()));
  }

  /** The deliveries to this server, oldest first. */
  public List<DeliveryRecord> deliveries() {
    return new Deliveries(site.files(), site.records().deliveries()).all();
  }

  /** Who holds the lock now. */
  public Optional<Lock.Holder> lockHolder() {
    return Lock.holder(site.host(), site.records().lock());
  }

  /** Says so when a delivery has not ended; empty when all did. */
  public Optional<String> unfinished() {
    return Recovery.told(site);
  }

  /** Every command that changes something recovers first. */
  private void recoverFirst() {
    recover(false)
        .filter(outcome -> outcome.result() == DeliveryOutcome.Result.STUCK)
        .ifPresent(
            outcome -> {
              throw new RecordsException(
                  "Cannot go on: delivery "
                      + outcome.number()
                      + " is stuck. "
                      + String.join("; ", outcome.left()));
            });
  }

  /** Starts the server; false when it ran already. */
  public boolean start() {
    if (unfinished().isPresent()) {
      recoverFirst();
    }
    try (Lock lock = gate.enter()) {
      Stock stock = site.stockTaker().take(List.of());
      if (stock.process().isPresent()) {
        return false;
      }
      try {
        new ServerStart(site, progress, interrupts).start(stock);
      } catch (StepFailed e) {
        new ServerProcess(site).stop();
        throw new ServerStartException(e.why());
      } catch (ServerStartException e) {
        new ServerProcess(site).stop();
        throw e;
      }
      return true;
    }
  }

  /** Stops the server; false when it did not run. */
  public boolean stop() {
    if (unfinished().isPresent()) {
      recoverFirst();
    }
    if (site.stockTaker().running().isEmpty()) {
      return false;
    }
    try (Lock lock = gate.enter()) {
      new ServerProcess(site).stop();
      return true;
    }
  }

  /** Where the placement of an application stands, for those who show it. */
  public List<Placement> placements() {
    return site.stockTaker().standing().applications().stream()
        .map(Standing.Owner::placement)
        .toList();
  }
}
