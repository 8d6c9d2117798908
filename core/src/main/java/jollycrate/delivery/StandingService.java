package jollycrate.delivery;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.app.Application;
import jollycrate.app.ContextPath;
import jollycrate.check.CheckResult;
import jollycrate.check.Requester;
import jollycrate.secret.Secrets;
import jollycrate.server.Cause;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.watch.Aim;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Applications that stand on one server: asked, and started anew. */
public final class StandingService {
  private final Site site;
  private final Secrets secrets;
  private final Progress progress;
  private final Supplier<Requester> requesters;
  private final Gate gate;
  private final Aims aims;
  private final Waits waits;

  /** For one server. */
  public StandingService(
      Site site,
      Secrets secrets,
      Progress progress,
      Interrupts interrupts,
      Supplier<Requester> requesters) {
    this.site = site;
    this.secrets = secrets;
    this.progress = progress;
    this.requesters = requesters;
    this.gate = new Gate(site, progress);
    this.aims = new Aims(site);
    this.waits = new Waits(site, progress, interrupts);
  }

  /** Runs the checks of an application against what stands on the server. */
  public DeliveryOutcome check(Application application) {
    OutcomeBuilder outcome = aims.builder("check", application.name());
    Standing.Owner owner = mustStand("check", application.name());
    Placement placement = site.addressed(owner.placement());
    outcome.aim(aims.of("check", placement));
    List<CheckResult> results =
        checkRun().run(application, new Passwords(application, secrets).ofUsers(), placement, true);
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
    Map<String, String> passwords = new Passwords(application, secrets).ofUsers();
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
    List<CheckResult> results = checkRun().run(application, passwords, placement, true);
    outcome.checks(results).note(CheckRun.unproven(results));
    return outcome.end(
        notUp.isPresent() ? DeliveryOutcome.Result.CHECKS_FAILED : CheckRun.passed(results),
        site.time().now());
  }

  private Standing.Owner mustStand(String act, String application) {
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
    return new CheckRun(site, progress, waits, requesters);
  }
}
