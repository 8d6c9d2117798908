package jollycrate.delivery;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.foresee.Finding;
import jollycrate.secret.Secrets;
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
  private final Secrets secrets;
  private final Progress progress;
  private final Gate gate;

  Course(Site site, Secrets secrets, Progress progress, Gate gate) {
    this.site = site;
    this.secrets = secrets;
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
      if (!gate.settled(outcome, dryRun)) {
        return outcome.end(DeliveryOutcome.Result.STUCK, site.time().now());
      }
      Seen seen = look.get();
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
      Optional<DeliveryOutcome> ended =
          end.map(result -> outcome.end(result, site.time().now())).or(() -> locked(outcome, way));
      if (ended.isPresent()) {
        return ended.get();
      }
    }
  }

  /**
   * What somebody changes just now is no finding: whoever changes something has to wait for him.
   */
  private boolean begunMeanwhile(boolean dryRun) {
    return !dryRun && Recovery.unfinished(site).isPresent();
  }

  private void tell(OutcomeBuilder outcome, Way way) {
    way.stock().texts().values().stream()
        .map(bytes -> new String(bytes, StandardCharsets.UTF_8))
        .forEach(text -> HiddenValues.in(text, secrets));
    List<Finding> findings = new ArrayList<>(way.findings());
    findings.sort(Comparator.comparing(Finding::level));
    List<String> diffs =
        TextDiffs.of(way.stock(), way.steps()).stream()
            .map(diff -> HiddenValues.masked(diff, secrets))
            .toList();
    outcome.findings(findings).steps(way.steps()).diffs(diffs);
    progress.foreseen(findings);
    if (!way.steps().isEmpty() && !Finding.anyBlocker(findings)) {
      progress.planned(site.server(), way.steps(), diffs);
    }
  }

  /**
   * Empty when somebody else delivered, or began to, between the look and the lock: then the look
   * has to be taken again.
   */
  private Optional<DeliveryOutcome> locked(OutcomeBuilder outcome, Way way) {
    try (Gate.Passage passage = gate.enterWithFront()) {
      Stock stock = way.act().takeStock();
      boolean same =
          stock.standing().equals(way.stock().standing())
              && stock.digests().equals(way.stock().digests());
      if (!same || Recovery.unfinished(site).isPresent()) {
        return Optional.empty();
      }
      DeliveryOutcome.Result result = way.act().run(stock, passage);
      if (result == DeliveryOutcome.Result.REMOVED) {
        outcome.stays(way.staysOnceRemoved().get());
      }
      DeliveryOutcome end = outcome.end(result, site.time().now());
      return new Told(site)
          .keepOrWhyNot(end, secrets)
          .map(why -> outcome.note(why).end(result, site.time().now()))
          .or(() -> Optional.of(end));
    }
  }
}
