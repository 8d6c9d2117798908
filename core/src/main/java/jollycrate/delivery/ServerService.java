package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.control.ServerProcess;
import jollycrate.control.ServerStart;
import jollycrate.control.ServerStartException;
import jollycrate.host.HostException;
import jollycrate.host.Identity;
import jollycrate.journal.Journal;
import jollycrate.journal.Lock;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.server.Presence;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Aim;
import jollycrate.watch.Interrupts;
import jollycrate.watch.LogEntry;
import jollycrate.watch.LogLevel;
import jollycrate.watch.LogSlice;
import jollycrate.watch.Progress;
import jollycrate.watch.ServerLogReader;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

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
   * @return empty when nothing was to be settled
   */
  public Optional<DeliveryOutcome> recover() {
    Optional<Journal> unfinished = Recovery.unfinished(site);
    if (unfinished.isEmpty()) {
      mustBeIdle();
      return Optional.empty();
    }
    OutcomeBuilder outcome =
        new OutcomeBuilder(
            new Aim(
                "recover",
                new Aim.Release(unfinished.get().opened().application(), "", "", "", 0, ""),
                site.place("")),
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

  /** The same once whoever holds the lock has ended; he is asked to, and made to. */
  public Optional<DeliveryOutcome> takeOver() {
    new TakeOver(site, progress).endHolders();
    return recover();
  }

  /**
   * Moves records aside that cannot be read, after somebody settled by hand what they told of.
   *
   * @return where they are now; empty when all can be read
   */
  public List<Path> setAside() {
    try (Gate.Passage passage = gate.enterAsItIs()) {
      return new UnreadableRecords(site).setAside(passage);
    }
  }

  /** What was delivered to it so far. */
  public PastDeliveries past() {
    return new PastDeliveries(site);
  }

  /** The server. */
  public Server server() {
    return site.server();
  }

  /** Who holds the lock now. */
  public Optional<Lock.Holder> lockHolder() {
    return Lock.holder(site.host(), site.records().lock());
  }

  /** Says so when a delivery has not ended; empty when all did. */
  public Optional<String> unfinished() {
    try {
      return Recovery.told(site);
    } catch (RecordsException e) {
      return Optional.of(e.getMessage());
    }
  }

  /**
   * Nobody else works on it just now.
   *
   * @throws jollycrate.journal.LockedException when somebody does
   */
  public void mustBeIdle() {
    if (site.files().facts(site.server().records()).exists()) {
      gate.enterWithFront().close();
    }
  }

  /** Every command that changes something recovers first. */
  public void recoverFirst() {
    if (Recovery.unfinished(site).isEmpty()) {
      return;
    }
    recover()
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

  /** Locked with nothing left unended: somebody's delivery may have died since it was looked at. */
  private Gate.Passage enterSettled() {
    while (true) {
      recoverFirst();
      Gate.Passage passage = gate.enter();
      if (Recovery.unfinished(site).isEmpty()) {
        return passage;
      }
      passage.close();
    }
  }

  /**
   * What a start came to.
   *
   * @param changed false when the server ran already
   * @param failed why applications on it do not run
   */
  public record Started(boolean changed, List<Cause> failed) {}

  /**
   * Starts the server unless it runs.
   *
   * @throws ServerStartException when it does not start; then it is stopped again
   */
  public Started start() {
    try (Gate.Passage passage = enterSettled()) {
      Stock stock = site.stockTaker().take(List.of());
      if (!stock.process().isStopped()) {
        List<Cause> down = down(stock.standing());
        if (down.isEmpty() || site.traits().hosts()) {
          return new Started(false, down);
        }
        new ServerProcess(site).stop();
      }
      try {
        return new Started(true, new ServerStart(site, progress, interrupts).start(stock));
      } catch (StepFailed e) {
        throw notStarted(e.why());
      } catch (ServerStartException e) {
        throw notStarted(e.why());
      } catch (HostException e) {
        throw notStarted(Cause.of(e.getMessage(), ""));
      }
    }
  }

  private ServerStartException notStarted(Cause cause) {
    try {
      new ServerProcess(site).stop();
      return new ServerStartException(cause);
    } catch (HostException e) {
      throw new RecordsException(cause.what() + ", and then: " + e.getMessage());
    }
  }

  /**
   * Stops the server; false when it provably did not run.
   *
   * @throws RecordsException when it was asked to end and goes on
   */
  public boolean stop() {
    recoverFirst();
    ServerProcess process = new ServerProcess(site);
    Presence presence = process.presence();
    presence
        .unread()
        .ifPresent(
            why -> {
              throw new HostException(
                  "Cannot tell whether '" + site.server().name() + "' runs: " + why);
            });
    if (presence.isStopped() && process.leftBehind().isEmpty()) {
      return false;
    }
    try (Gate.Passage passage = enterSettled()) {
      process.stop();
      return true;
    } catch (HostException e) {
      throw new RecordsException(e.getMessage());
    }
  }

  /**
   * Stops the server so that it is started again; false when it did not run.
   *
   * @throws NotDeliveredException when a restart would change how a process runs that somebody else
   *     started
   */
  public boolean stopToRestart() {
    List<String> changes =
        Interruptions.otherwise(site, site.stockTaker().take(List.of())).stream()
            .map(finding -> finding.message() + ". " + finding.fix())
            .toList();
    if (!changes.isEmpty()) {
      throw new NotDeliveredException(
          "Cannot restart '" + site.server().name() + "': " + String.join("\n  ", changes));
    }
    return stop();
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
    if (process.presence().found().filter(Running::ours).isPresent()) {
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
    return standing.running().stream()
        .map(Standing.Owner::placement)
        .flatMap(placement -> site.down(placement).stream())
        .toList();
  }

  /**
   * Reads what the server and its applications print.
   *
   * @param least level that an entry must have
   * @param application of which entries are told; empty: of every one
   * @throws NotDeliveredException when it does not stand there, nor was delivered last
   */
  public ServerLogReader log(
      Consumer<LogEntry> found, LogLevel least, Optional<String> application) {
    Optional<Placement> placement = application.map(this::placementOf);
    return new ServerLogReader(
        site, found, entry -> entry.isAtLeast(least) && placement.map(entry::isOf).orElse(true));
  }

  /** Where an application stands, or was to stand with the last delivery. */
  private Placement placementOf(String application) {
    return site.stockTaker()
        .standing()
        .owner(application)
        .map(Standing.Owner::placement)
        .or(
            () ->
                Journal.read(site.files(), site.records().journal())
                    .map(Journal::opened)
                    .flatMap(last -> Optional.ofNullable(last.placement()))
                    .filter(last -> last.application().equals(application)))
        .orElseThrow(
            () ->
                new NotDeliveredException(
                    "Cannot tell what '"
                        + application
                        + "' logged: it does not stand on '"
                        + site.server().name()
                        + "', and was not delivered last"));
  }

  /** Where the placement of an application stands, for those who show it. */
  public List<Placement> placements() {
    return site.stockTaker().standing().applications().stream()
        .map(Standing.Owner::placement)
        .map(site::addressed)
        .toList();
  }
}
