package jollycrate.delivery;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;
import jollycrate.check.People;
import jollycrate.journal.EarlierRelease;
import jollycrate.secret.SecretException;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.watch.Site;

/**
 * Checks of applications that are not delivered just now, as their deliveries described them. Only
 * those that change nothing are run, and of those that failed before nothing is expected. Their
 * data sources are not asked: drivers stand where they were delivered from.
 */
final class StandingChecks {
  private final Site site;
  private final CheckRun quiet;
  private final CheckRun told;
  private final Map<String, Set<String>> failedBefore = new HashMap<>();

  /**
   * @param quiet for those before, of which nobody is told
   */
  StandingChecks(Site site, CheckRun quiet, CheckRun told) {
    this.site = site;
    this.quiet = quiet;
    this.told = told;
  }

  /** Notes what fails before anything is changed; its names. */
  Set<String> before(Placement placement) {
    Set<String> failed = new TreeSet<>();
    run(quiet, placement, Set.of()).stream()
        .filter(result -> !result.passed())
        .map(CheckResult::name)
        .forEach(failed::add);
    failedBefore.put(placement.application(), failed);
    return failed;
  }

  /** Runs those that passed before. */
  List<CheckResult> after(Placement placement) {
    return run(told, placement, failedBefore.getOrDefault(placement.application(), Set.of()));
  }

  private List<CheckResult> run(CheckRun checkRun, Placement placement, Set<String> leftOut) {
    Application application = described(placement.application()).askingNoData();
    List<Check> checks = application.checks().stream().filter(check -> check.isSafe()).toList();
    List<Check> expected =
        checks.stream().filter(check -> !leftOut.contains(check.name())).toList();
    if (!leftOut.isEmpty() && expected.isEmpty()) {
      return List.of();
    }
    try {
      People people = new Passwords(application, site.secrets()).people();
      return checkRun.run(application.checking(expected), people, placement, false);
    } catch (SecretException unresolved) {
      return checkRun.run(application.checking(List.of()), People.NOBODY, placement, false);
    }
  }

  private Application described(String name) {
    return site.stockTaker()
        .standing()
        .owner(name)
        .map(Standing.Owner::delivery)
        .flatMap(site.releases()::of)
        .map(EarlierRelease::described)
        .orElseGet(() -> Application.undescribed(name));
  }
}
