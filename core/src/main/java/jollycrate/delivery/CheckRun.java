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
import jollycrate.server.LogPlace;
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
      Checker direct = new Checker(requester, placement.direct(), passwords);
      if (application.checks().isEmpty()) {
        results.add(explained(placement, checker::anyAnswer, direct::anyAnswer));
      }
      for (Check check : application.checks()) {
        boolean safe = check.method().equals("GET") || check.method().equals("HEAD");
        Supplier<CheckResult> again = safe ? () -> direct.run(check) : direct::anyAnswer;
        results.add(explained(placement, () -> checker.run(check), again));
      }
    }
    return results;
  }

  private CheckResult explained(
      Placement placement, Supplier<CheckResult> check, Supplier<CheckResult> direct) {
    LogPlace mark = waits.logEnd(placement);
    CheckResult result = check.get();
    CheckResult told =
        result.passed() ? result : result.because(cause(placement, result, mark, direct));
    progress.checked(told);
    return told;
  }

  private Optional<Cause> cause(
      Placement placement, CheckResult result, LogPlace mark, Supplier<CheckResult> direct) {
    Optional<Cause> front = new FrontBlame(site).of(result, placement, direct);
    if (front.isPresent()) {
      return front;
    }
    if (result.status() == 0) {
      return site.down(placement).or(result::cause);
    }
    if (result.status() < SERVER_ERROR) {
      return result.cause();
    }
    return site.kind()
        .logs()
        .explain(placement.packages(), LogSlice.since(site, mark).text())
        .map(found -> LogSlice.since(site, mark).located(site, found))
        .or(result::cause);
  }
}
