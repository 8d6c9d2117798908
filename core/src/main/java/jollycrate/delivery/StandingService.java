package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.ContextPath;
import jollycrate.check.CheckResult;
import jollycrate.check.People;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.step.StepList;
import jollycrate.watch.Aim;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Applications that stand on one server: asked, and started anew. */
public final class StandingService {
  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Gate gate;
  private final Course course;
  private final Aims aims;
  private final Waits waits;

  /** For one server. */
  public StandingService(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
    this.gate = new Gate(site, progress);
    this.course = new Course(site, progress, gate);
    this.aims = new Aims(site);
    this.waits = new Waits(site, progress, interrupts);
  }

  /**
   * Runs the checks of an application against what stands on the server.
   *
   * @param atOnce how many of them at the same time
   */
  public DeliveryOutcome check(Application application, int atOnce) {
    OutcomeBuilder outcome = aims.builder("check", application.name());
    Standing.Owner owner = mustStand("check", application.name());
    Placement placement = site.addressed(owner.placement());
    outcome.aim(aims.of("check", placement));
    List<CheckResult> results =
        new CheckRun(site, progress, waits, atOnce)
            .run(application, new Passwords(application, site.secrets()).people(), placement, true);
    outcome.checks(results).note(CheckRun.unproven(results));
    return outcome.end(CheckRun.passed(results), site.time().now());
  }

  /** Starts an application anew that stands on a running server, and runs its checks. */
  public DeliveryOutcome restart(Application application) {
    OutcomeBuilder outcome = aims.builder("restart", application.name());
    if (!gate.settled(outcome, false)) {
      return outcome.end(DeliveryOutcome.Result.STUCK, site.time().now());
    }
    Standing.Owner owner = mustStand("restart", application.name());
    Placement placement = site.addressed(owner.placement());
    Aim aim = aims.of("restart", placement);
    outcome.aim(aim);
    People people = new Passwords(application, site.secrets()).people();
    AppRestart restart = new AppRestart(site, waits, owner);
    Optional<Cause> notUp;
    try (Gate.Passage passage = gate.enterWithFront()) {
      Stock stock = site.stockTaker().take(List.of());
      Optional<Cause> hindrance = restart.hindrance(stock);
      if (hindrance.isPresent()) {
        return outcome
            .cause(hindrance.get())
            .end(DeliveryOutcome.Result.BLOCKED, site.time().now());
      }
      progress.looked(aim, ContextPath.shown(placement.route().contextPath()));
      AppRestart.Restarted restarted = restart.run(stock);
      notUp = restarted.cause();
      notUp.ifPresent(outcome::cause);
      outcome.down(
          Optional.of(new DeliveryOutcome.Downtime(restarted.silence(), false, List.of())));
    }
    List<CheckResult> results = checkRun().run(application, people, placement, true);
    outcome.checks(results).note(CheckRun.unproven(results));
    return outcome.end(
        notUp.isPresent() ? DeliveryOutcome.Result.CHECKS_FAILED : CheckRun.passed(results),
        site.time().now());
  }

  /** Stops an application that stands on a running server; all else there goes on. */
  public DeliveryOutcome stop(String application) {
    return turn("stop", Application.undescribed(application));
  }

  /** Starts an application again that was stopped, and runs its checks. */
  public DeliveryOutcome start(Application application) {
    return turn("start", application);
  }

  private DeliveryOutcome turn(String act, Application application) {
    OutcomeBuilder outcome = aims.builder(act, application.name());
    return course.run(outcome, false, () -> look(act, application, outcome));
  }

  private Course.Way look(String act, Application application, OutcomeBuilder outcome) {
    boolean runs = act.equals("start");
    Standing.Owner owner = mustBeDelivered(act, application.name());
    People people = runs ? new Passwords(application, site.secrets()).people() : People.NOBODY;
    Target target =
        new PauseTarget(site, owner, runs, at -> checkRun().run(application, people, at, true));
    Act carried = new Act(site, progress, interrupts, target, outcome);
    Stock stock = carried.takeStock();
    Placement placement = site.addressed(owner.placement());
    StepList steps = carried.steps(stock);
    List<Finding> findings =
        AppRestart.byItself(
                site,
                owner,
                stock,
                "'jolly server " + act + " " + site.server().name() + "' is for all of it")
            .or(() -> switchIsGone(owner, runs, steps))
            .map(cause -> Finding.blocker(owner.name(), cause.what(), "", cause.next()))
            .stream()
            .toList();
    return new Course.Way(
        carried,
        stock,
        aims.of(act, placement),
        ContextPath.shown(placement.route().contextPath()),
        findings,
        steps,
        () -> DeliveryOutcome.Result.UNCHANGED,
        List::of);
  }

  /** Nothing to do is right only where it is as it is to be. */
  private static Optional<Cause> switchIsGone(Standing.Owner owner, boolean runs, StepList steps) {
    return steps.isEmpty() && owner.isStopped() == runs
        ? Optional.of(
            Cause.of(
                "the file that switches it is gone, or larger than is read", "Deliver it again"))
        : Optional.empty();
  }

  private Standing.Owner mustStand(String act, String application) {
    Standing.Owner owner = mustBeDelivered(act, application);
    if (owner.isStopped()) {
      throw new NotDeliveredException(
          "Cannot "
              + act
              + " '"
              + application
              + "': it is stopped. 'jolly app start --on "
              + site.server().name()
              + "' starts it");
    }
    return owner;
  }

  private Standing.Owner mustBeDelivered(String act, String application) {
    String server = site.server().name();
    return site.stockTaker()
        .standing()
        .owner(application)
        .orElseThrow(
            () ->
                new NotDeliveredException(
                    "Cannot "
                        + act
                        + " '"
                        + application
                        + "': it was not delivered to '"
                        + server
                        + "'. Deliver it with 'jolly deploy --to "
                        + server
                        + "'"));
  }

  private CheckRun checkRun() {
    return new CheckRun(site, progress, waits);
  }
}
