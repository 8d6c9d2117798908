package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.check.CheckResult;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.Journal;
import jollycrate.script.Undo;
import jollycrate.server.Cause;
import jollycrate.server.Feature;
import jollycrate.server.Keys;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.step.Cure;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.step.StepsToReach;
import jollycrate.watch.Site;

/**
 * A release of an application that is to stand, or an application that is to be gone.
 *
 * @param wanted empty: the application is to be removed
 * @param release what is to be kept of it, so that it can be delivered again; empty for a removal
 * @param ours digests of what we answer for, by key, where something of somebody else stays in it
 * @param dataSources JNDI names that the new release gets
 * @param scripts what is done to databases before; empty: nothing
 * @param checks runs the checks of the application
 */
record ApplicationTarget(
    Site site,
    String application,
    Optional<Wanted> wanted,
    Optional<EarlierRelease> release,
    Map<String, String> ours,
    List<String> dataSources,
    Optional<ScriptsHere> scripts,
    Function<Placement, List<CheckResult>> checks)
    implements Target {

  static ApplicationTarget removal(Site site, String application) {
    return new ApplicationTarget(
        site,
        application,
        Optional.empty(),
        Optional.empty(),
        Map.of(),
        List.of(),
        Optional.empty(),
        placement -> List.of());
  }

  private List<Piece> pieces() {
    return wanted.map(Wanted::pieces).orElse(List.of());
  }

  @Override
  public List<Path> paths() {
    return Stream.concat(
            pieces().stream().map(Piece::path),
            wanted.stream().flatMap(known -> known.placement().made().all().stream()))
        .toList();
  }

  @Override
  public List<String> digests() {
    return pieces().stream().map(Piece::digest).toList();
  }

  @Override
  public StepList steps(Stock stock) {
    return new StepsToReach(
            site.kind(),
            stock,
            application,
            wanted,
            site.kind().processes().launch(stock),
            cure(stock))
        .applying(scripts.map(ScriptsHere::steps).orElse(List.of()))
        .compute();
  }

  private Cure cure(Stock stock) {
    if (ailed(stock).isEmpty()) {
      return Cure.NONE;
    }
    Traits traits = site.traits();
    boolean again =
        traits.hosts()
            && traits.swaps().contains(Swap.LIVE)
            && !traits.features().contains(Feature.LOOKS_AT_CONTENT);
    return again ? Cure.SWITCH_AGAIN : Cure.RESTART;
  }

  @Override
  public Optional<String> ailed(Stock stock) {
    return stock
        .process()
        .found()
        .flatMap(running -> stock.standing().owner(application))
        .flatMap(owner -> site.down(owner.placement()))
        .map(Cause::what);
  }

  @Override
  public String act() {
    if (wanted.isEmpty()) {
      return "undeploy";
    }
    return release.filter(it -> it.restores() > 0).isPresent() ? "rollback" : "deploy";
  }

  @Override
  public Swap swap(Stock stock) {
    return wanted
        .map(Wanted::swap)
        .or(() -> stock.standing().owner(application).map(Standing.Owner::swap))
        .orElse(Swap.LIVE);
  }

  @Override
  public Optional<Placement> placement() {
    return wanted.map(Wanted::placement);
  }

  @Override
  public Optional<Placement> earlier(Stock stock) {
    return stock.standing().owner(application).map(Standing.Owner::placement);
  }

  @Override
  public List<CheckResult> check(Placement placement) {
    return checks.apply(placement);
  }

  @Override
  public void apply(Step.ApplyScript step) {
    scripts.orElseThrow().apply(step);
  }

  @Override
  public Optional<Undo> undo(Step.ApplyScript step) {
    return scripts.map(known -> known.undo(step));
  }

  @Override
  public Standing next(Standing standing, Journal journal, List<String> found) {
    if (wanted.isEmpty()) {
      return standing.without(application);
    }
    TreeMap<String, Standing.Held> pieces = new TreeMap<>();
    for (Piece piece : pieces()) {
      String key = Keys.of(site.server(), piece);
      boolean known = !standing.ownersOf(key).isEmpty() || made(journal, piece.path());
      if (known || !(piece instanceof Piece.Folder)) {
        String digest = ours.getOrDefault(key, piece.digest());
        pieces.put(key, new Standing.Held(digest, piece.part()));
      }
    }
    return standing.with(
        new Standing.Owner(
            wanted.get().placement(),
            journal.opened().delivery(),
            journal.opened().description(),
            wanted.get().swap(),
            pieces,
            standing.owner(application).map(Standing.Owner::found).orElse(found)));
  }

  private static boolean made(Journal journal, Path path) {
    return journal.backwards().stream()
        .anyMatch(doing -> doing.step() instanceof Step.MakeFolder m && m.path().equals(path));
  }

  @Override
  public DeliveryOutcome.Result kept(List<CheckResult> results) {
    if (wanted.isEmpty()) {
      return DeliveryOutcome.Result.REMOVED;
    }
    return results.stream().anyMatch(CheckResult::proves)
        ? DeliveryOutcome.Result.DELIVERED
        : DeliveryOutcome.Result.DELIVERED_UNPROVEN;
  }
}
