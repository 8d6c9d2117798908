package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.app.Application;
import jollycrate.app.ContextPath;
import jollycrate.app.DataSource;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ServletNamespace;
import jollycrate.check.CheckResult;
import jollycrate.check.People;
import jollycrate.file.Trees;
import jollycrate.foresee.Finding;
import jollycrate.foresee.Foresight;
import jollycrate.foresee.LossRule;
import jollycrate.foresee.ProcessRule;
import jollycrate.journal.EarlierRelease;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Unfolded;
import jollycrate.server.Wanted;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Delivers applications to one server, from first look to last record. */
public final class DeliveryService {
  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Gate gate;
  private final Course course;
  private final Aims aims;
  private final Preparation preparation;

  /** For one server. */
  public DeliveryService(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
    this.gate = new Gate(site, progress);
    this.course = new Course(site, progress, gate);
    this.aims = new Aims(site);
    this.preparation = new Preparation(site);
  }

  /** Delivers an artifact, or says what would be done. */
  public DeliveryOutcome deploy(
      Application application, Artifact artifact, Source source, Manner manner) {
    Order order = new Passwords(application, site.secrets()).order(artifact, manner.onAdminPort());
    return deploy(order, source, manner);
  }

  /**
   * Resolves everything that an application refers to, before anything takes long.
   *
   * @throws jollycrate.secret.SecretException with every reference that cannot be resolved
   */
  public void mustResolve(Application application) {
    new Passwords(application, site.secrets()).mustResolve();
  }

  /**
   * Delivers an artifact that is run from where it stands unpacked. Checks are run and told of, but
   * one that fails does not take it back: whoever changes the application wants to see it.
   */
  public DeliveryOutcome deployUnfolded(
      Application application, Artifact artifact, Unfolded unfolded) {
    Order order = new Passwords(application, site.secrets()).order(artifact, false).from(unfolded);
    return deploy(order, Source.UNKNOWN, Manner.USUAL);
  }

  private DeliveryOutcome deploy(Order order, Source source, Manner manner) {
    OutcomeBuilder outcome = aims.builder(source.act(), order.application().name());
    return course.run(outcome, manner.dryRun(), () -> look(order, source, manner, outcome));
  }

  private Course.Way look(Order order, Source source, Manner manner, OutcomeBuilder outcome) {
    String application = order.application().name();
    Stock first = site.stockTaker().take(List.of());
    Wanted plain = preparation.wanted(first, order);
    KeepOrReplace.Settled settled =
        preparation
            .changes(first, application, manner.changedThere())
            .map(changes -> changes.settled(plain))
            .orElse(new KeepOrReplace.Settled(plain, Map.of(), List.of()));
    Wanted wanted = settled.wanted();
    ScriptsHere scripts =
        new ScriptsHere(site, order.application(), order.databasePasswords(), manner.halfApplied());
    Target target = target(order, settled, source, scripts);
    Act act = new Act(site, progress, interrupts, target, outcome);
    Stock stock = act.takeStock();
    List<Finding> findings =
        new ArrayList<>(
            Foresight.look(new Looking(site).scene(stock, order, wanted, manner.accepted())));
    Set<String> blocked =
        findings.stream()
            .filter(finding -> finding.level() == Finding.Level.BLOCKER)
            .map(Finding::subject)
            .collect(Collectors.toSet());
    scripts.findings().stream()
        .filter(finding -> !blocked.contains(finding.subject()))
        .forEach(findings::add);
    findings.addAll(settled.findings());
    findings.addAll(source.findings());
    site.secrets().tooShort().stream().map(DeliveryService::tooShort).forEach(findings::add);
    StepList steps = act.steps(stock);
    findings.addAll(new Interruptions(site).look(stock, steps, application));
    boolean switches = steps.change().stream().anyMatch(Step::moves);
    findings.addAll(LossRule.look(stock, wanted.placement(), switches, manner.accepted()));
    findings.addAll(new Transfer(site, progress).foresee(steps));
    return new Course.Way(
        act,
        stock,
        aims.of(order, wanted, source, stock),
        ContextPath.shown(wanted.placement().route().contextPath()),
        findings,
        steps,
        () -> unchanged(target.check(wanted.placement()), outcome),
        List::of);
  }

  /**
   * Delivers an earlier release again, as it was described then; secrets are resolved now.
   *
   * @param here what is described where the tool works
   * @param number of the delivery it came with; empty: the one before what stands
   * @throws NotDeliveredException when there is none such that could be delivered again
   */
  public DeliveryOutcome rollback(DescribedHere here, Optional<Integer> number, Manner manner) {
    OutcomeBuilder outcome = aims.builder("rollback", here.application().orElse(""));
    if (!gate.settled(outcome, manner.dryRun())) {
      return outcome.end(DeliveryOutcome.Result.STUCK, site.time().now());
    }
    Rollback rollback = new Rollback(site);
    EarlierRelease release = rollback.chosen(here, number);
    Path folder = Trees.temporary();
    try {
      return deploy(preparation.orderOf(release, folder, here), rollback.source(release), manner);
    } finally {
      Trees.discard(folder);
    }
  }

  /** Removes an application, or says what would be done. */
  public DeliveryOutcome undeploy(String application, Manner manner) {
    OutcomeBuilder outcome = aims.builder("undeploy", application);
    return course.run(outcome, manner.dryRun(), () -> look(application, manner, outcome));
  }

  private Course.Seen look(String application, Manner manner, OutcomeBuilder outcome) {
    Target target = ApplicationTarget.removal(site, application);
    Act act = new Act(site, progress, interrupts, target, outcome);
    Stock stock = act.takeStock();
    Optional<Standing.Owner> owner = stock.standing().owner(application);
    if (owner.isEmpty()) {
      return new Course.Nothing(new NeverDelivered(site, stock, application).tell(outcome));
    }
    List<Finding> findings = new ArrayList<>(ProcessRule.look(stock, owner.get().swap()));
    preparation
        .changes(stock, application, manner.changedThere())
        .map(KeepOrReplace::removing)
        .ifPresent(findings::addAll);
    StepList steps = act.steps(stock);
    findings.addAll(new Interruptions(site).look(stock, steps, application));
    findings.addAll(databasesStay(owner.get()));
    Placement placement = owner.get().placement();
    return new Course.Way(
        act,
        stock,
        aims.of("undeploy", placement),
        ContextPath.shown(placement.route().contextPath()),
        findings,
        steps,
        () -> DeliveryOutcome.Result.UNCHANGED,
        () -> Remains.of(site, owner.get(), site.stockTaker().standing()));
  }

  /** What it did to its databases is nobody's to undo, and easily forgotten. */
  private List<Finding> databasesStay(Standing.Owner owner) {
    return site
        .releases()
        .of(owner.delivery())
        .map(EarlierRelease::described)
        .map(Application::dataSources)
        .orElse(List.of())
        .stream()
        .map(
            source ->
                Finding.note(
                    source.jndiName(),
                    "its database stays as it is, with the tables of the application"
                        + (source.scripts().isEmpty()
                            ? ""
                            : " and jolly_scripts, where it is noted what was applied")))
        .toList();
  }

  private DeliveryOutcome.Result unchanged(List<CheckResult> results, OutcomeBuilder outcome) {
    outcome.checks(results).note(CheckRun.unproven(results));
    return CheckRun.passed(results);
  }

  private static Finding tooShort(String reference) {
    return Finding.warn(
        reference,
        "its value has fewer than four characters: in what is shown, it is hidden only where it"
            + " stands as a value",
        "",
        "Take a longer one");
  }

  private static boolean hasServlets(Order order) {
    Artifact artifact = order.artifact();
    return !artifact.web().endpoints().isEmpty()
        || artifact.web().namespace() != ServletNamespace.NONE;
  }

  private ApplicationTarget target(
      Order order, KeepOrReplace.Settled settled, Source source, ScriptsHere scripts) {
    Application application = order.application();
    People people = new Passwords(application, site.secrets()).people();
    return new ApplicationTarget(
        site,
        application.name(),
        Optional.of(settled.wanted()),
        Optional.of(Rollback.keepable(order, source)),
        settled.ours(),
        application.dataSources().stream().map(DataSource::jndiName).toList(),
        Optional.of(scripts),
        placement -> {
          List<CheckResult> results =
              checkRun().run(application, people, placement, hasServlets(order));
          return order.unfolded().isEmpty()
              ? results
              : results.stream().filter(CheckResult::passed).toList();
        });
  }

  private CheckRun checkRun() {
    return new CheckRun(site, progress, new Waits(site, progress, interrupts));
  }
}
