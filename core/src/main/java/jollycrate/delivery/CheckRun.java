package jollycrate.delivery;

import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.check.Answer;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.Requester;
import jollycrate.front.FrontBlame;
import jollycrate.front.WayBlame;
import jollycrate.host.Fact;
import jollycrate.host.Listening;
import jollycrate.host.Sight;
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
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

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
    try (Requester there = site.requesters().get();
        Requester here = site.host().here() ? there : site.outside().get()) {
      boolean beside =
          site.server().front().isPresent()
              && placement.route().base().equals(placement.route().direct());
      Sides sides = Sides.of(placement, there, beside ? there : here, passwords);
      Checker direct = sides.direct();
      boolean hosted = site.traits().hosts();
      if (application.checks().isEmpty() && !hosted && !application.program().speaksHttp()) {
        CheckResult listens = listens(placement);
        results.add(down.map(listens::failedBy).orElse(listens));
        progress.checked(results.get(0));
      } else if (application.checks().isEmpty()) {
        Supplier<CheckResult> root =
            () -> hosted ? sides.outside().root(servlets) : sides.outside().anyAnswer();
        results.add(explained(placement, down, root, direct::anyAnswer));
      }
      for (Check check : application.checks()) {
        Supplier<CheckResult> again =
            check.ask().isSafe() ? () -> direct.run(check) : direct::anyAnswer;
        results.add(explained(placement, down, () -> sides.run(check), again));
      }
      if (placement.route().listener().equals(Placement.ADMIN)) {
        CheckResult hidden =
            sides
                .outside()
                .absentAt(publicly(placement), results.stream().anyMatch(CheckResult::proves));
        progress.checked(hidden);
        results.add(hidden);
      }
    }
    return results;
  }

  /**
   * From where checks ask.
   *
   * @param outside asks as people do
   * @param inside asks the same on the server's own machine
   * @param direct asks the program there without a web server before it
   * @param silent names of checks to which nothing came back from outside
   */
  private record Sides(Checker outside, Checker inside, Checker direct, Set<String> silent) {
    static Sides of(
        Placement placement, Requester there, Requester here, Map<String, String> passwords) {
      Placement.Route route = placement.route();
      boolean main = route.listener().equals(Placement.MAIN);
      boolean admin = route.listener().equals(Placement.ADMIN);
      if (!main && !admin) {
        there.leads(route.base().getHost(), route.direct().getHost());
        here.leads(route.base().getHost(), route.direct().getHost());
      }
      Checker inside = new Checker(there, main ? route.direct() : route.base(), passwords);
      Checker outside = admin ? inside : new Checker(here, route.base(), passwords);
      Checker direct = new Checker(there, route.direct(), passwords);
      return new Sides(outside, inside, direct, new HashSet<>());
    }

    /** Where nothing came back once, nothing is waited for again. */
    CheckResult run(Check check) {
      if (check.fromHost()) {
        return inside.run(check);
      }
      if (!silent.isEmpty()) {
        return outside.notAsked(check, silent.iterator().next());
      }
      CheckResult result = outside.run(check);
      if (result.why() == Answer.Why.SILENCE) {
        silent.add(result.name());
      }
      return result;
    }
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
        Optional.empty(),
        Duration.ZERO,
        misses,
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(Cause.of("port " + port + " is not open", "Read its log")),
        true,
        Optional.empty());
  }

  private CheckResult explained(
      Placement placement,
      Optional<Cause> down,
      Supplier<CheckResult> check,
      Supplier<CheckResult> direct) {
    List<LogPlace> logs = ends(placement);
    CheckResult result = check.get();
    CheckResult told = result;
    if (down.isPresent() && !(result.passed() && result.proves())) {
      told = result.failedBy(down.get());
    } else if (!result.passed() && result.cause().isPresent()) {
      told = result.because(cause(placement, result, logs, direct));
    }
    progress.checked(told);
    return told;
  }

  /** Where the logs end now in which a cause may stand: the application's own, then others. */
  private List<LogPlace> ends(Placement placement) {
    Sight sight = site.host().sight();
    return sight.once(
        () -> {
          sight.ahead(site.logEnds());
          List<LogPlace> ends = new ArrayList<>(List.of(waits.logEnd(placement)));
          ends.addAll(site.besides());
          return ends;
        });
  }

  private Optional<Cause> cause(
      Placement placement, CheckResult result, List<LogPlace> logs, Supplier<CheckResult> direct) {
    Optional<Cause> between =
        new WayBlame(site.host(), site.server())
            .of(result, placement.route(), direct)
            .or(() -> new FrontBlame(site).of(result, placement, direct));
    if (between.isPresent()) {
      return between;
    }
    if (result.status() < SERVER_ERROR) {
      return result.cause();
    }
    AtomicReference<Optional<Cause>> told = new AtomicReference<>(Optional.empty());
    site.time()
        .until(
            () -> {
              told.set(logged(placement, logs));
              return told.get().isPresent();
            },
            Waits.DETAILS_WITHIN,
            LOOK_AGAIN,
            () -> {});
    return told.get().or(result::cause);
  }

  /** What was logged since, and tells why. */
  private Optional<Cause> logged(Placement placement, List<LogPlace> logs) {
    LogSlice log =
        LogSlice.since(site, logs.get(0))
            .and(site, site.besidesSince(logs.subList(1, logs.size())));
    return site.kind()
        .logs()
        .explain(placement.release().packages(), log.text())
        .map(found -> log.located(site, found));
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
