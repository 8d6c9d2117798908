package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Ports;
import jollycrate.foresee.Finding;
import jollycrate.foresee.PlaceRule;
import jollycrate.foresee.PortRule;
import jollycrate.foresee.ProcessRule;
import jollycrate.server.Feature;
import jollycrate.server.Overhaul;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.SelfDescription;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wish;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Changes a server itself, as a delivery: foreseen, journalled, proven or taken back. */
public final class ServerChanges {
  private final Site site;
  private final Ports before;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Course course;
  private final Aims aims;
  private final StandingChecks checks;

  /**
   * @param site as it is to be described
   * @param before where it was described to listen
   */
  public ServerChanges(Site site, Ports before, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.before = before;
    this.progress = progress;
    this.interrupts = interrupts;
    this.course = new Course(site, progress, new Gate(site, progress));
    this.aims = new Aims(site);
    Waits waits = new Waits(site, progress, interrupts);
    this.checks =
        new StandingChecks(
            site, new CheckRun(site, Progress.NONE, waits), new CheckRun(site, progress, waits));
  }

  /**
   * Does what is wished, or says what would be done.
   *
   * @param description the file that describes the server, where that changes with it
   */
  public DeliveryOutcome change(Wish wish, Optional<Piece.WholeFile> description, boolean dryRun) {
    return change(wish, description, Optional.empty(), dryRun);
  }

  /** The same of a server on another machine, whose description is beside the tool. */
  public DeliveryOutcome change(Wish wish, DescribedBeside description, boolean dryRun) {
    return change(wish, Optional.empty(), Optional.of(description), dryRun);
  }

  private DeliveryOutcome change(
      Wish wish,
      Optional<Piece.WholeFile> description,
      Optional<DescribedBeside> beside,
      boolean dryRun) {
    OutcomeBuilder outcome = aims.builder(wish.act(), "");
    return course.run(outcome, dryRun, () -> look(wish, description, beside, outcome));
  }

  private Course.Way look(
      Wish wish,
      Optional<Piece.WholeFile> description,
      Optional<DescribedBeside> beside,
      OutcomeBuilder outcome) {
    Stock first = site.stockTaker().take(List.of());
    Overhaul overhaul = site.kind().overhaul(site.files(), first, wish);
    overhaul.hidden().forEach(site.secrets()::hide);
    List<Placement> up = up(first);
    Target target =
        new ServerTarget(
            site,
            wish.act(),
            overhaul,
            before.all(),
            up,
            description,
            beside,
            checks::after,
            first.process().found().isPresent());
    Act act = new Act(site, progress, interrupts, target, outcome);
    Stock stock = act.takeStock();
    StepList steps = act.steps(stock);
    List<Finding> findings = findings(stock, overhaul, steps, up);
    beside.map(DescribedBeside::findings).ifPresent(findings::addAll);
    return new Course.Way(
        act, stock, outcome.aim(), "", findings, steps, () -> onlyDescribed(beside), List::of);
  }

  private static DeliveryOutcome.Result onlyDescribed(Optional<DescribedBeside> beside) {
    Optional<DescribedBeside> other = beside.filter(DescribedBeside::differs);
    other.ifPresent(DescribedBeside::write);
    return other.isPresent() ? DeliveryOutcome.Result.CHANGED : DeliveryOutcome.Result.UNCHANGED;
  }

  private List<Placement> up(Stock stock) {
    return stock.process().found().isEmpty()
        ? List.of()
        : stock.standing().running().stream()
            .map(Standing.Owner::placement)
            .filter(placement -> site.down(placement).isEmpty())
            .toList();
  }

  private List<Finding> findings(
      Stock stock, Overhaul overhaul, StepList steps, List<Placement> up) {
    boolean restarts = needsRestart(stock, overhaul, steps);
    List<Finding> findings =
        new ArrayList<>(ProcessRule.look(stock, restarts ? Swap.RESTART : Swap.LIVE));
    findings.addAll(PortRule.look(stock));
    findings.addAll(PlaceRule.look(stock, site.files()::writable));
    findings.addAll(lacking(stock));
    overhaul
        .refused()
        .forEach(why -> findings.add(Finding.blocker(why.subject(), why.message(), "", why.fix())));
    overhaul.seen().entrySet().stream()
        .filter(seen -> !seen.getValue().equals(stock.digests().get(seen.getKey())))
        .map(
            seen ->
                Finding.blocker(
                    site.server().shown(seen.getKey()),
                    "somebody changes it just now",
                    "",
                    "Do this again"))
        .forEach(findings::add);
    overhaul.done().forEach(done -> findings.add(found(done, Finding.Level.NOTE)));
    overhaul.left().forEach(left -> findings.add(found(left, Finding.Level.WARN)));
    findings.addAll(new Interruptions(site).look(stock, steps, ""));
    if (restarts) {
      up.forEach(placement -> failedBefore(placement).ifPresent(findings::add));
    }
    if (!steps.isEmpty() && stock.process().isStopped()) {
      findings.add(
          Finding.note(
              site.server().name(),
              "it does not run, so nothing can show now that it starts with this"));
    }
    return findings;
  }

  /** A listener that servers of this kind cannot have is no description that could come true. */
  private List<Finding> lacking(Stock stock) {
    Ports ports = stock.server().ports();
    List<Finding> findings = new ArrayList<>();
    if (ports.admin().isPresent() && !has(Feature.ADMIN_LISTENER)) {
      findings.add(lacking("admin", "admin listener", "Deliver to the public listener alone"));
    }
    if (ports.https().isPresent() && !has(Feature.HTTPS)) {
      findings.add(lacking("https", "listener for HTTPS", "Put a web server before it"));
    }
    return findings;
  }

  private boolean has(Feature feature) {
    return site.traits().features().contains(feature);
  }

  private Finding lacking(String key, String listener, String fix) {
    return Finding.blocker(
        key,
        "a " + site.traits().label() + " gets no " + listener + " from here",
        "",
        "Take '" + key + "' out of servers.toml. " + fix);
  }

  private static boolean needsRestart(Stock stock, Overhaul overhaul, StepList steps) {
    return steps.change().stream().anyMatch(Step.StopServer.class::isInstance)
        || stock.process().found().isPresent()
            && !steps.isEmpty()
            && overhaul.files().stream().anyMatch(Piece.WholeFile::restarts);
  }

  private static Finding found(SelfDescription.Doubt doubt, Finding.Level level) {
    return new Finding(level, doubt.subject(), doubt.message(), doubt.seen(), doubt.fix());
  }

  private Optional<Finding> failedBefore(Placement placement) {
    List<String> failed = List.copyOf(checks.before(placement));
    return failed.isEmpty()
        ? Optional.empty()
        : Optional.of(
            Finding.warn(
                placement.application(),
                "what fails already is not asked for afterwards",
                String.join(", ", failed),
                "'jolly check " + placement.application() + "' tells why"));
  }
}
