package jollycrate.delivery;

import java.net.URI;
import java.time.Duration;
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
import jollycrate.front.FrontBlame;
import jollycrate.host.Fact;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.watch.LogSlice;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.Waits;

/** Runs the checks of an application and finds the cause of a failure in the server's log. */
final class CheckRun {
  private static final int SERVER_ERROR = 500;

  private final Site site;
  private final Progress progress;
  private final Waits waits;

  CheckRun(Site site, Progress progress, Waits waits) {
    this.site = site;
    this.progress = progress;
    this.waits = waits;
  }

  /**
   * Runs all of them, whatever the first ones say. What the server's log says of the application
   * comes first: no answer proves one that did not start.
   *
   * @param passwords of users who log in, by name
   * @param servlets whether the artifact has servlets, so that a page alone proves nothing
   */
  List<CheckResult> run(
      Application application,
      Map<String, String> passwords,
      Placement placement,
      boolean servlets) {
    List<CheckResult> results = new ArrayList<>();
    Optional<Cause> down = site.down(placement);
    try (Requester requester = site.requesters().get()) {
      if (site.traits().hosts()) {
        requester.leads(placement.route().base().getHost(), placement.route().direct().getHost());
      }
      Checker checker = new Checker(requester, placement.route().base(), passwords);
      Checker direct = new Checker(requester, placement.route().direct(), passwords);
      boolean hosted = site.traits().hosts();
      if (application.checks().isEmpty() && !hosted && !application.program().speaksHttp()) {
        CheckResult listens = listens(placement);
        results.add(down.map(listens::failedBy).orElse(listens));
        progress.checked(results.get(0));
      } else if (application.checks().isEmpty()) {
        Supplier<CheckResult> root = hosted ? () -> checker.root(servlets) : checker::anyAnswer;
        results.add(explained(placement, down, root, direct::anyAnswer));
      }
      for (Check check : application.checks()) {
        boolean safe = check.method().equals("GET") || check.method().equals("HEAD");
        Supplier<CheckResult> again = safe ? () -> direct.run(check) : direct::anyAnswer;
        results.add(explained(placement, down, () -> checker.run(check), again));
      }
      if (placement.route().listener().equals(Placement.ADMIN)) {
        CheckResult hidden =
            checker.absentAt(publicly(placement), results.stream().anyMatch(CheckResult::proves));
        progress.checked(hidden);
        results.add(hidden);
      }
    }
    return results;
  }

  private URI publicly(Placement placement) {
    return site.server().ports().at(placement.route().contextPath() + "/");
  }

  /** All that can be seen of a program that speaks no HTTP. */
  private CheckResult listens(Placement placement) {
    int port = placement.route().direct().getPort();
    Fact<Optional<Listening>> found = site.host().processes().listening(port);
    boolean open = found.map(Optional::isPresent).orElse(false);
    List<CheckResult.Miss> misses =
        open
            ? List.of()
            : List.of(
                new CheckResult.Miss("port", "open", found.unread().orElse("nobody listens")));
    return new CheckResult(
        "listens on its port",
        "port " + port,
        0,
        Duration.ZERO,
        misses,
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(Cause.of("port " + port + " is not open", "Read its log")),
        true);
  }

  private CheckResult explained(
      Placement placement,
      Optional<Cause> down,
      Supplier<CheckResult> check,
      Supplier<CheckResult> direct) {
    LogPlace mark = waits.logEnd(placement);
    List<LogPlace> besides = site.besides();
    CheckResult result = check.get();
    CheckResult told = result;
    if (down.isPresent() && !(result.passed() && result.proves())) {
      told = result.failedBy(down.get());
    } else if (!result.passed()) {
      told = result.because(cause(placement, result, mark, besides, direct));
    }
    progress.checked(told);
    return told;
  }

  private Optional<Cause> cause(
      Placement placement,
      CheckResult result,
      LogPlace mark,
      List<LogPlace> besides,
      Supplier<CheckResult> direct) {
    Optional<Cause> front = new FrontBlame(site).of(result, placement, direct);
    if (front.isPresent()) {
      return front;
    }
    if (result.status() < SERVER_ERROR) {
      return result.cause();
    }
    LogSlice log = LogSlice.since(site, mark).and(site, site.besidesSince(besides));
    return site.kind()
        .logs()
        .explain(placement.release().packages(), log.text())
        .map(found -> log.located(site, found))
        .or(result::cause);
  }

  /** What checks come to where nothing was changed. */
  static DeliveryOutcome.Result passed(List<CheckResult> results) {
    return results.stream().allMatch(CheckResult::passed)
        ? DeliveryOutcome.Result.UNCHANGED
        : DeliveryOutcome.Result.CHECKS_FAILED;
  }

  /** What is to be said when nothing of them shows that the application works; else empty. */
  static String unproven(List<CheckResult> results) {
    return results.stream().anyMatch(CheckResult::proves)
        ? ""
        : "no check asked for anything that shows that it works. Describe a [[check]] in jolly.toml";
  }
}
