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

/** Gathers what an outcome tells while a delivery goes on. */
final class OutcomeBuilder {
  private final String act;
  private final String application;
  private final String server;
  private final Instant start;
  private String version = "";
  private String address = "";
  private int number;
  private List<Finding> findings = List.of();
  private final List<Step> steps = new ArrayList<>();
  private List<String> diffs = List.of();
  private List<CheckResult> checks = List.of();
  private Optional<Cause> cause = Optional.empty();
  private List<String> left = List.of();
  private List<String> stays = List.of();
  private String note = "";

  OutcomeBuilder(String act, String application, String server, Instant start) {
    this.act = act;
    this.application = application;
    this.server = server;
    this.start = start;
  }

  OutcomeBuilder release(String releaseVersion, String releaseAddress) {
    version = releaseVersion;
    address = releaseAddress;
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

  OutcomeBuilder stays(List<String> names) {
    stays = names;
    return this;
  }

  /** Adds a note; an empty one is none. */
  OutcomeBuilder note(String text) {
    note = Stream.of(note, text).filter(part -> !part.isEmpty()).collect(Collectors.joining("; "));
    return this;
  }

  DeliveryOutcome end(DeliveryOutcome.Result result, Instant now) {
    return new DeliveryOutcome(
        result,
        act,
        application,
        version,
        server,
        number,
        address,
        findings,
        List.copyOf(steps),
        diffs,
        checks,
        cause,
        left,
        stays,
        note,
        Duration.between(start, now).toMillis());
  }
}
