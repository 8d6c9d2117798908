package jollycrate.delivery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.foresee.Finding;
import jollycrate.json.Json;
import jollycrate.secret.HiddenValues;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.step.StepList;
import jollycrate.stock.Space;
import jollycrate.watch.Aim;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/**
 * The course of every delivery: a look that changes nothing, and what it told is carried out under
 * the lock; the look is taken again when somebody delivered in between.
 */
final class Course {
  private final Site site;
  private final Progress progress;
  private final Gate gate;

  Course(Site site, Progress progress, Gate gate) {
    this.site = site;
    this.progress = progress;
    this.gate = gate;
  }

  /** What a look came to. */
  sealed interface Seen {}

  /** Nothing can be delivered, and nothing needs to be. */
  record Nothing(DeliveryOutcome.Result result) implements Seen {}

  /**
   * What would be done.
   *
   * @param path where on the server, like /spokes; empty for the server itself
   * @param unchanged what it comes to when there is nothing to do
   * @param staysOnceRemoved data of the application that is left when it is gone
   */
  record Way(
      Act act,
      Stock stock,
      Aim aim,
      String path,
      List<Finding> findings,
      StepList steps,
      Supplier<DeliveryOutcome.Result> unchanged,
      Supplier<List<Space>> staysOnceRemoved)
      implements Seen {}

  /**
   * Takes a look and does what it tells.
   *
   * @param dryRun whether it is only said what would be done
   */
  DeliveryOutcome run(OutcomeBuilder outcome, boolean dryRun, Supplier<Seen> look) {
    while (true) {
      Optional<Seen> settled = site.host().sight().once(() -> seen(outcome, dryRun, look));
      if (settled.isEmpty()) {
        if (!gate.settle(outcome)) {
          return outcome.end(DeliveryOutcome.Result.STUCK, site.time().now());
        }
        continue;
      }
      Seen seen = settled.get();
      if (seen instanceof Nothing nothing) {
        return outcome.end(nothing.result(), site.time().now());
      }
      Way way = (Way) seen;
      outcome.aim(way.aim());
      progress.looked(way.aim(), way.path());
      boolean blocked = Finding.anyBlocker(way.findings());
      if (blocked && begunMeanwhile(dryRun)) {
        continue;
      }
      tell(outcome, way);
      Optional<DeliveryOutcome.Result> end =
          blocked
              ? Optional.of(DeliveryOutcome.Result.BLOCKED)
              : dryRun
                  ? Optional.of(DeliveryOutcome.Result.DRY_RUN)
                  : Optional.of(way)
                      .filter(it -> it.steps().isEmpty())
                      .map(it -> it.unchanged().get());
      boolean asked = !blocked && !dryRun && end.isPresent();
      if (asked && !site.host().sight().once(() -> stillStands(way))) {
        continue;
      }
      Optional<DeliveryOutcome> ended =
          end.map(result -> outcome.end(result, site.time().now())).or(() -> locked(outcome, way));
      if (ended.isPresent()) {
        return ended.get();
      }
    }
  }

  /** Empty when something has to be settled before anything is looked at. */
  private Optional<Seen> seen(OutcomeBuilder outcome, boolean dryRun, Supplier<Seen> look) {
    site.host().sight().ahead(site.stockTaker().usual().and(Recovery.glance(site)));
    return gate.isSettled(outcome, dryRun) ? Optional.of(look.get()) : Optional.empty();
  }

  /**
   * What somebody changes just now is no finding: whoever changes something has to wait for him.
   */
  private boolean begunMeanwhile(boolean dryRun) {
    return !dryRun && Recovery.unfinished(site).isPresent();
  }

  private void tell(OutcomeBuilder outcome, Way way) {
    List<Finding> findings = new ArrayList<>(way.findings());
    findings.sort(Comparator.comparing(Finding::level));
    List<String> diffs =
        TextDiffs.of(way.stock(), way.steps()).stream()
            .map(diff -> HiddenValues.masked(diff, site.secrets()))
            .toList();
    outcome.findings(findings).steps(way.steps()).diffs(diffs);
    progress.foreseen(findings);
    if (!way.steps().isEmpty() && !Finding.anyBlocker(findings)) {
      progress.planned(site.server(), way.steps(), diffs);
    }
  }

  /** Whether nobody delivered, or began to, while what stands was asked whether it works. */
  private boolean stillStands(Way way) {
    site.host().sight().ahead(site.stockTaker().whatStands().and(Recovery.glance(site)));
    return Recovery.unfinished(site).isEmpty() && isAsSeen(site.stockTaker().standing(), way);
  }

  /** By the texts that are kept: what Java derives to compare records is made at run time. */
  private static boolean isAsSeen(Standing now, Way way) {
    return Json.line(now).equals(Json.line(way.stock().standing()));
  }

  /** The stock, unless it is another one than it was. */
  private Optional<Stock> asSeen(Way way) {
    site.host().sight().ahead(site.stockTaker().usual().and(Recovery.glance(site)));
    Stock stock = way.act().takeStock();
    return Optional.of(stock)
        .filter(now -> isAsSeen(now.standing(), way))
        .filter(now -> now.digests().equals(way.stock().digests()))
        .filter(now -> Recovery.unfinished(site).isEmpty());
  }

  /**
   * Empty when somebody else delivered, or began to, between the look and the lock: then the look
   * has to be taken again.
   */
  private Optional<DeliveryOutcome> locked(OutcomeBuilder outcome, Way way) {
    try (Gate.Passage passage = gate.enterWithFront()) {
      Optional<Stock> same = site.host().sight().once(() -> asSeen(way));
      if (same.isEmpty()) {
        return Optional.empty();
      }
      site.supply(progress);
      DeliveryOutcome.Result result = way.act().run(same.get(), passage);
      if (result == DeliveryOutcome.Result.REMOVED) {
        outcome.stays(way.staysOnceRemoved().get());
      }
      DeliveryOutcome end = outcome.end(result, site.time().now());
      return new Told(site)
          .keepOrWhyNot(end)
          .map(why -> outcome.note(why).end(result, site.time().now()))
          .or(() -> Optional.of(end));
    }
  }
}
