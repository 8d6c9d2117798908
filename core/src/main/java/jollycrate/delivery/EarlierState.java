package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.control.ServerProcess;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.server.Cause;
import jollycrate.server.Expected;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.step.Step;
import jollycrate.watch.ServerWaits;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** The server as it was before a delivery, once the files are: the earlier release answers. */
final class EarlierState {
  /** The number that stands in the journal for bringing the earlier state up again. */
  static final int SETTLING = 0;

  /** The number that stands there for restarting the server on the way. */
  private static final int RESTARTING = -1;

  private final Site site;
  private final Journal journal;
  private final Waits waits;
  private final ServerWaits ofServer;
  private final ServerProcess process;
  private final boolean hangs;

  EarlierState(
      Site site,
      Journal journal,
      Waits waits,
      ServerWaits ofServer,
      ServerProcess process,
      boolean hangs) {
    this.hangs = hangs;
    this.site = site;
    this.journal = journal;
    this.waits = waits;
    this.ofServer = ofServer;
    this.process = process;
  }

  private Stock stock() {
    return site.stockTaker().take(List.of());
  }

  /**
   * Brings it up, by the same facts that a delivery waits for, else by a restart.
   *
   * @param resumed whether somebody began to take back before
   * @param movedBack whether a file was put back just now
   * @return what is left for hands
   */
  Optional<String> settle(JournalLine.Doing firstMove, boolean resumed, boolean movedBack) {
    JournalLine.Opened opened = journal.opened();
    if (!opened.serverRan()) {
      process.stop();
      clearTraces();
      return Optional.empty();
    }
    if (process.presence().isStopped()
        || stopped().isPresent()
        || journal.wasUndoing(RESTARTING)
        || hangs && hurtsNobodyElse()) {
      return restart();
    }
    if (!resumed && !movedBack) {
      return Optional.empty();
    }
    if (!journal.wasUndoing(SETTLING)) {
      if (resumed) {
        renewSwitches();
      }
      journal.write(new JournalLine.Undoing(SETTLING, site.logEnd()));
    }
    Waits.From from =
        new Waits.From(
            firstMove.mark(),
            journal.undoingMark(SETTLING),
            site.time().now(),
            false,
            site.besides());
    return awaitEarlier(from).isPresent() ? restart() : Optional.empty();
  }

  /**
   * A server that is busy with a release that hangs takes no notice of what is put back; where
   * nothing else is on it, it need not be given the time.
   */
  private boolean hurtsNobodyElse() {
    Set<Path> own =
        Stream.of(journal.opened().placement(), journal.opened().earlier())
            .filter(Objects::nonNull)
            .map(Placement::switchPath)
            .collect(Collectors.toSet());
    return site.traits().hosts()
        && site.kind().occupants(stock()).stream().map(Occupant::path).allMatch(own::contains);
  }

  /** How the server was stopped; one that was asked to may still answer for a moment. */
  private Optional<Step.StopServer> stopped() {
    return journal.backwards().stream()
        .map(JournalLine.Doing::step)
        .filter(Step.StopServer.class::isInstance)
        .map(Step.StopServer.class::cast)
        .reduce((later, earlier) -> earlier);
  }

  /**
   * A file put back just before a crash may have been noticed by the server or not; with a fresh
   * time it is noticed again.
   */
  private void renewSwitches() {
    journal.backwards().stream()
        .map(JournalLine.Doing::step)
        .filter(Step::moves)
        .flatMap(step -> step.file().stream())
        .map(Step.FileChange::path)
        .filter(path -> site.files().facts(path).isFile())
        .forEach(site.files()::touch);
  }

  private Optional<String> restart() {
    if (!journal.wasUndoing(RESTARTING)) {
      journal.write(new JournalLine.Undoing(RESTARTING, site.logEnd()));
    }
    process.stop();
    clearTraces();
    Waits.From from = Waits.From.now(site, true);
    Optional<Step.StopServer> stopped = stopped();
    if (stopped.isPresent()) {
      process.startAgain(stock(), stopped.get());
    } else {
      process.start(stock());
    }
    return awaitEarlier(from)
        .map(
            cause ->
                "every file is as it was, and the server was restarted, but the earlier state"
                    + " does not come up: "
                    + cause.what());
  }

  /**
   * One that did not run before need not come up now; but until the server is done with it, what it
   * says would be taken for the next delivery's.
   */
  private Optional<Cause> awaitEarlier(Waits.From from) {
    JournalLine.Opened opened = journal.opened();
    boolean beside = opened.swap() == Swap.BESIDE_THEN_SWITCH;
    Optional<Cause> cause = from.started() ? awaitServer(from) : Optional.empty();
    if (cause.isEmpty() && opened.earlier() != null) {
      Expected expected = beside && !from.started() ? Expected.SWITCHED : Expected.UP;
      Optional<Cause> came = waits.until(stock(), opened.earlier(), expected, from);
      cause = opened.ailed().isEmpty() ? came.or(this::lost) : Optional.empty();
    }
    if (cause.isEmpty() && opened.placement() != null && (beside || !standsAtSamePlace())) {
      cause = waits.until(stock(), opened.placement(), Expected.GONE, from);
    }
    return cause;
  }

  /**
   * A release whose unpacked files are gone is up by all that its server says, and answers nothing.
   */
  private Optional<Cause> lost() {
    return waits.missingAfterAll(journal.opened().stood()).stream()
        .findFirst()
        .map(
            path ->
                Cause.of(
                    path + " is gone, which the server makes for the earlier release",
                    "Look whether the server can write there"));
  }

  /** The server itself, and what else was up on it. */
  private Optional<Cause> awaitServer(Waits.From from) {
    Optional<Cause> cause =
        stopped()
            .filter(stopped -> site.traits().hosts())
            .flatMap(stopped -> ofServer.untilListening(stopped.ports(), from));
    for (Placement other : journal.opened().others()) {
      cause = cause.or(() -> waits.until(stock(), other, Expected.UP, from));
    }
    return cause;
  }

  private boolean standsAtSamePlace() {
    Placement earlier = journal.opened().earlier();
    return earlier != null
        && earlier.switchPath().equals(journal.opened().placement().switchPath());
  }

  private void clearTraces() {
    Stream.of(journal.opened().placement(), journal.opened().earlier())
        .filter(placement -> placement != null)
        .flatMap(placement -> placement.made().traces().stream())
        .forEach(site.files()::deleteTree);
  }
}
