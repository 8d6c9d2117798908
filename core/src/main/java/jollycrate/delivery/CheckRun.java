package jollycrate.delivery;

import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.app.DataCheck;
import jollycrate.check.Answer;
import jollycrate.check.AtOnce;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.People;
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
  /** A servlet that cannot be used at all answers that it is not there (Servlet 6.0, 2.3.3.2). */
  private static final int NOT_FOUND = 404;

  private static final int SERVER_ERROR = 500;
  private static final Duration TRY_AGAIN = Duration.ofMillis(500);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

  private final Site site;
  private final Progress progress;
  private final Waits waits;
  private final int atOnce;

  CheckRun(Site site, Progress progress, Waits waits) {
    this(site, progress, waits, 1);
  }

  /**
   * @param atOnce how many checks are made at the same time
   */
  CheckRun(Site site, Progress progress, Waits waits, int atOnce) {
    this.site = site;
    this.progress = progress;
    this.waits = waits;
    this.atOnce = atOnce;
  }

  /**
   * Runs all of them, whatever the first ones say. What the server's log says of the application
   * comes first: no answer proves one that did not start.
   *
   * @param servlets whether the artifact has servlets, so that a page alone proves nothing
   */
  List<CheckResult> run(
      Application application, People people, Placement placement, boolean servlets) {
    List<CheckResult> results = new ArrayList<>();
    Optional<Cause> down = site.down(placement);
    try (Requester there = site.requesters().get();
        Requester here = site.host().here() ? there : site.outside().get()) {
      boolean beside =
          site.server().front().isPresent()
              && placement.route().base().equals(placement.route().direct());
      Sides sides = Sides.of(site, placement, there, beside ? there : here, people);
      Checker direct = sides.inside();
      boolean hosted = site.traits().hosts();
      if (application.checks().isEmpty() && !hosted && !application.program().speaksHttp()) {
        CheckResult listens = listens(placement);
        results.add(down.map(listens::failedBy).orElse(listens));
        progress.checked(results.get(0));
      } else if (application.checks().isEmpty()) {
        Supplier<CheckResult> root =
            () -> hosted ? sides.member().root(servlets) : sides.member().anyAnswer();
        results.add(explained(placement, down, ends(placement), root, direct::anyAnswer));
      }
      results.addAll(all(application.checks(), sides, placement, down));
      if (results.stream().allMatch(CheckResult::passed)) {
        sides
            .way()
            .map(way -> new WayRun(way, placement.route().base()))
            .map(way -> way.ask(application.checks(), direct.anyAnswer()))
            .map(through -> explainedWay(placement, through, direct))
            .ifPresent(results::add);
      }
      for (DataCheck data : application.data()) {
        CheckResult asked = new DataRun(site, application, people.databases()).ask(data);
        results.add(asked);
        progress.checked(asked);
      }
      if (placement.route().listener().equals(Placement.ADMIN)) {
        CheckResult hidden =
            sides
                .member()
                .absentAt(publicly(placement), results.stream().anyMatch(CheckResult::proves));
        progress.checked(hidden);
        results.add(hidden);
      }
    }
    return results;
  }

  /** All of them in their order, as they are written. */
  private List<CheckResult> all(
      List<Check> checks, Sides sides, Placement placement, Optional<Cause> down) {
    List<CheckResult> results = new ArrayList<>();
    List<LogPlace> begin = atOnce == 1 ? List.of() : ends(placement);
    try (AtOnce threads = new AtOnce(atOnce, "check")) {
      List<Supplier<CheckResult>> made =
          checks.stream().map(check -> made(check, sides, threads)).toList();
      for (int i = 0; i < checks.size(); i++) {
        Check check = checks.get(i);
        Checker direct = sides.inside();
        Supplier<CheckResult> again = check.isSafe() ? () -> direct.run(check) : direct::anyAnswer;
        List<LogPlace> logs = atOnce == 1 ? ends(placement) : begin;
        results.add(explained(placement, down, logs, made.get(i), again));
      }
    }
    return results;
  }

  /** One by one each is made when it is asked for. */
  private Supplier<CheckResult> made(Check check, Sides sides, AtOnce threads) {
    return atOnce == 1 ? () -> tried(check, sides) : threads.begin(() -> tried(check, sides));
  }

  /** A check may ask to be made again for a while. */
  private CheckResult tried(Check check, Sides sides) {
    AtomicReference<CheckResult> last = new AtomicReference<>();
    site.time()
        .until(
            () -> {
              last.set(sides.run(check));
              return last.get().passed() || last.get().why() == Answer.Why.GIVEN_UP;
            },
            check.manner().retryFor(),
            TRY_AGAIN,
            () -> progress.waitingFor("'" + check.name() + "' to pass"));
    return last.get();
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
    return CheckResult.withoutAnswer(
        "listens on its port",
        "port " + port,
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
      List<LogPlace> logs,
      Supplier<CheckResult> check,
      Supplier<CheckResult> direct) {
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

  private CheckResult explainedWay(Placement placement, CheckResult through, Checker direct) {
    CheckResult told =
        through.passed()
            ? through
            : through.because(between(placement, through, direct::anyAnswer).or(through::cause));
    progress.checked(told);
    return told;
  }

  private Optional<Cause> between(
      Placement placement, CheckResult result, Supplier<CheckResult> direct) {
    return new WayBlame(site.host(), site.server())
        .of(result, placement.route(), direct)
        .or(() -> new FrontBlame(site).of(result, placement, direct));
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
    Optional<Cause> between = between(placement, result, direct);
    if (between.isPresent()) {
      return between;
    }
    if (result.status() == NOT_FOUND) {
      return logged(placement, logs).or(result::cause);
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
