package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.host.Identity;
import jollycrate.journal.Deliveries;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.Journal;
import jollycrate.journal.Lock;
import jollycrate.log.LogEntry;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
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
      Gate.frontLock(site).ifPresent(file -> Lock.breakOpen(site.host(), file));
    }
    if (unfinished.isEmpty()) {
      if (site.files().facts(site.server().records()).exists()) {
        gate.enterWithFront().close();
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
    try (Gate.Passage passage = gate.enter()) {
      Stock stock = site.stockTaker().take(List.of());
      if (stock.process().isPresent()) {
        if (down(stock.standing()).isEmpty()) {
          return false;
        }
        new ServerProcess(site).stop();
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
    ServerProcess process = new ServerProcess(site);
    if (process.running().isEmpty() && process.leftBehind().isEmpty()) {
      return false;
    }
    try (Gate.Passage passage = gate.enter()) {
      process.stop();
      return true;
    }
  }

  /** Applications that do not run although the server does, and programs that it left behind. */
  public List<Cause> troubles() {
    ServerProcess process = new ServerProcess(site);
    String name = site.server().name();
    List<Cause> troubles = new ArrayList<>();
    for (Identity left : process.leftBehind()) {
      troubles.add(
          Cause.of(
              "the process that looks after it was killed, and program "
                  + left.pid()
                  + " goes on without",
              "'jolly server start " + name + "' takes it in hand again, 'stop' ends it"));
    }
    if (process.running().isPresent() && !site.traits().listens()) {
      Standing standing = site.stockTaker().standing();
      troubles.addAll(down(standing));
      String log = LogSlice.since(site, new LogPlace(site.log(), 0)).text();
      for (Standing.Owner owner : standing.applications()) {
        troubles.addAll(site.kind().logs().remarks(site.server(), owner.placement(), log));
      }
    }
    return List.copyOf(troubles);
  }

  private List<Cause> down(Standing standing) {
    return standing.applications().stream()
        .map(Standing.Owner::placement)
        .flatMap(placement -> site.down(placement).stream())
        .toList();
  }

  /** Reads what the server and its applications print; every entry is told of. */
  public ServerLogReader log(Consumer<LogEntry> found) {
    return new ServerLogReader(site, found);
  }

  /** Where the placement of an application stands, for those who show it. */
  public List<Placement> placements() {
    return site.stockTaker().standing().applications().stream()
        .map(Standing.Owner::placement)
        .toList();
  }
}
