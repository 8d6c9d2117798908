package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;
import jollycrate.check.CheckResult;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.journal.Journal;
import jollycrate.server.Expected;
import jollycrate.server.Part;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.step.ServerSteps;
import jollycrate.step.State;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Site;

/**
 * An application that stands on a server that goes on, and is to be stopped there or started again.
 * While it is stopped its switch is kept among our records, where the server does not look.
 *
 * @param owner as it stands
 * @param runs whether it is to run
 * @param checks runs its checks
 */
record PauseTarget(
    Site site, Standing.Owner owner, boolean runs, Function<Placement, List<CheckResult>> checks)
    implements Target {

  @Override
  public String application() {
    return owner.name();
  }

  private Path switchPath() {
    return owner.placement().switchPath();
  }

  private Path kept() {
    return site.records().stopped(owner.name());
  }

  @Override
  public List<Path> paths() {
    return List.of(switchPath(), kept());
  }

  @Override
  public StepList steps(Stock stock) {
    Path from = runs ? kept() : switchPath();
    Path to = runs ? switchPath() : kept();
    Optional<byte[]> text = Optional.ofNullable(stock.texts().get(from));
    if (text.isEmpty()) {
      List<Path> told = runs ? List.of() : owner.placement().made().marks();
      return new StepList(List.of(), ServerSteps.clearing(told, stock), Map.of());
    }
    Facts facts = stock.at(from);
    State state = new State(stock.digests().get(from), facts.access());
    Step put = new Step.PutFile(to, null, state, runs ? Part.SWITCH : Part.SUPPORT);
    Step remove = new Step.RemoveFile(from, state, runs ? Part.SUPPORT : Part.SWITCH);
    Placement placement = site.addressed(owner.placement());
    Map<Path, Content> contents = Map.of(to, Content.of(text.get()));
    return runs
        ? new StepList(
            List.of(
                put, remove, new Step.Await(placement, Expected.UP), new Step.RunChecks(placement)),
            List.of(),
            contents)
        : new StepList(
            List.of(put, remove, new Step.Await(placement, Expected.GONE)), List.of(), contents);
  }

  @Override
  public String act() {
    return runs ? "start" : "stop";
  }

  @Override
  public String described() {
    return owner.description();
  }

  @Override
  public Swap swap(Stock stock) {
    return owner.swap();
  }

  @Override
  public Optional<Placement> placement() {
    return Optional.of(owner.placement()).filter(it -> runs);
  }

  @Override
  public Optional<Placement> earlier(Stock stock) {
    return Optional.of(owner.placement()).filter(it -> !runs);
  }

  @Override
  public List<CheckResult> check(Placement placement) {
    return checks.apply(placement);
  }

  @Override
  public Standing next(Standing standing, Journal journal, List<String> found) {
    SortedMap<String, Standing.Held> pieces = new TreeMap<>(owner.pieces());
    String from = key(runs ? kept() : switchPath());
    String to = key(runs ? switchPath() : kept());
    String digest = pieces.remove(from).digest();
    pieces.put(to, new Standing.Held(digest, runs ? Part.SWITCH : Part.SUPPORT));
    return standing.with(owner.with(pieces));
  }

  private String key(Path path) {
    return site.server().folder().relativize(path).toString();
  }

  @Override
  public DeliveryOutcome.Result kept(List<CheckResult> results) {
    if (!runs) {
      return DeliveryOutcome.Result.STOPPED;
    }
    return results.stream().anyMatch(CheckResult::proves)
        ? DeliveryOutcome.Result.DELIVERED
        : DeliveryOutcome.Result.DELIVERED_UNPROVEN;
  }
}
