package jollycrate.delivery;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.check.CheckResult;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.stock.Space;
import jollycrate.watch.Aim;

/** Gathers what an outcome tells while a delivery goes on. */
final class OutcomeBuilder {
  private final Instant start;
  private Aim aim;
  private Optional<DeliveryOutcome.Downtime> down = Optional.empty();
  private Optional<DeliveryOutcome.Measured> measured = Optional.empty();
  private int number;
  private List<Finding> findings = List.of();
  private final List<Step> steps = new ArrayList<>();
  private List<String> diffs = List.of();
  private List<CheckResult> checks = List.of();
  private Optional<Cause> cause = Optional.empty();
  private List<String> left = List.of();
  private List<Space> stays = List.of();
  private String note = "";

  OutcomeBuilder(Aim aim, Instant start) {
    this.aim = aim;
    this.start = start;
  }

  /** When the act began. */
  Instant start() {
    return start;
  }

  /** What the act is about, as far as it is known. */
  Aim aim() {
    return aim;
  }

  OutcomeBuilder aim(Aim known) {
    aim = known;
    return this;
  }

  OutcomeBuilder down(Optional<DeliveryOutcome.Downtime> time) {
    down = time;
    return this;
  }

  OutcomeBuilder measured(Optional<DeliveryOutcome.Measured> needs) {
    measured = needs;
    return this;
  }

  OutcomeBuilder number(int delivery) {
    number = delivery;
    return this;
  }

  OutcomeBuilder findings(List<Finding> found) {
    findings = found;
    return this;
  }

  OutcomeBuilder steps(StepList list) {
    steps.clear();
    steps.addAll(list.change());
    steps.addAll(list.tidy());
    return this;
  }

  OutcomeBuilder diffs(List<String> unified) {
    diffs = unified;
    return this;
  }

  OutcomeBuilder checks(List<CheckResult> results) {
    checks = results;
    return this;
  }

  OutcomeBuilder cause(Cause why) {
    cause = Optional.of(why);
    return this;
  }

  OutcomeBuilder left(List<String> names) {
    left = names;
    return this;
  }

  OutcomeBuilder stays(List<Space> names) {
    stays = names;
    return this;
  }

  /** Adds a note that is not there yet; an empty one is none. */
  OutcomeBuilder note(String text) {
    if (!note.contains(text)) {
      note =
          Stream.of(note, text).filter(part -> !part.isEmpty()).collect(Collectors.joining("; "));
    }
    return this;
  }

  DeliveryOutcome end(DeliveryOutcome.Result result, Instant now) {
    return new DeliveryOutcome(
        result,
        aim,
        number,
        findings,
        List.copyOf(steps),
        diffs,
        checks,
        cause,
        left,
        stays,
        note,
        down,
        measured,
        Duration.between(start, now).toMillis());
  }
}
