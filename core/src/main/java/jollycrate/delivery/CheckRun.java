package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.Requester;
import jollycrate.server.Cause;
import jollycrate.server.Placement;

/** Runs the checks of an application and finds the cause of a failure in the server's log. */
final class CheckRun {
  private static final int SERVER_ERROR = 500;

  private final Site site;
  private final Progress progress;
  private final Waits waits;
  private final Supplier<Requester> requesters;

  CheckRun(Site site, Progress progress, Waits waits, Supplier<Requester> requesters) {
    this.site = site;
    this.progress = progress;
    this.waits = waits;
    this.requesters = requesters;
  }

  /**
   * Runs all of them, whatever the first ones say.
   *
   * @param passwords of users who log in, by name
   */
  List<CheckResult> run(
      Application application, Map<String, String> passwords, Placement placement) {
    List<CheckResult> results = new ArrayList<>();
    try (Requester requester = requesters.get()) {
      Checker checker = new Checker(requester, placement.base(), passwords);
      if (application.checks().isEmpty()) {
        results.add(explained(placement, checker::anyAnswer));
      }
      for (Check check : application.checks()) {
        results.add(explained(placement, () -> checker.run(check)));
      }
    }
    return results;
  }

  private CheckResult explained(Placement placement, Supplier<CheckResult> check) {
    long mark = site.logEnd();
    CheckResult result = check.get();
    if (!result.passed() && result.status() >= SERVER_ERROR) {
      Optional<Cause> cause =
          site.kind()
              .explain(placement.packages(), waits.logSince(mark))
              .map(found -> waits.located(found, mark));
      result =
          new CheckResult(
              result.name(),
              result.request(),
              result.status(),
              result.took(),
              result.misses(),
              cause.or(result::cause));
    }
    progress.checked(result);
    return result;
  }
}
