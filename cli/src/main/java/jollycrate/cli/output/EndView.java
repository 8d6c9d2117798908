package jollycrate.cli.output;

import java.time.Duration;
import java.util.List;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.file.Sizes;
import jollycrate.server.Cause;
import jollycrate.stock.Space;

/** Shows how a delivery ended, or its recovery. */
public final class EndView {
  private static final Duration WORTH_TELLING = Duration.ofSeconds(1);

  private final Screen screen;
  private final Style style;

  public EndView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /**
   * How it ended.
   *
   * @param prepared how long it took to build, to pack and to fetch before
   */
  public void ended(DeliveryOutcome outcome, Duration prepared) {
    ended(outcome);
    if (prepared.compareTo(WORTH_TELLING) >= 0) {
      screen.line(
          "Before it, "
              + Amounts.time(prepared.toMillis())
              + " went into building, packing and fetching.");
    }
  }

  /** How it ended. */
  public void ended(DeliveryOutcome outcome) {
    String release = outcome.aim().release().name();
    String where = DeliveryView.preposition(outcome.aim().act()) + outcome.aim().place().server();
    boolean back = outcome.aim().act().equals("rollback");
    String number = outcome.number() > 0 ? " (delivery " + outcome.number() + ")" : "";
    String whole = release + where + " in " + Amounts.time(outcome.millis()) + number + ".";
    new AccessTable(screen).show(outcome.checks());
    screen.gap();
    switch (outcome.result()) {
      case DELIVERED -> {
        String done =
            switch (outcome.aim().act()) {
              case "rollback" -> "Rolled back";
              case "start" -> "Started";
              default -> "Delivered";
            };
        screen.line(style.good(done) + (back ? " to " : " ") + whole);
        open(outcome);
      }
      case DELIVERED_UNPROVEN -> {
        screen.line(
            style.odd("Delivered, unproven:")
                + " "
                + whole
                + " It started, but nothing that was asked shows that it works.");
        open(outcome);
        screen.line(
            "  fix   "
                + style.strong("Describe a [[check]] in jolly.toml for a page that must answer"));
      }
      case STOPPED ->
          screen.line(
              style.good("Stopped")
                  + " "
                  + whole
                  + " 'jolly app start --on "
                  + outcome.aim().place().server()
                  + "' starts it again.");
      case CHANGED -> {
        screen.line(style.good("Changed") + " " + changed(outcome) + number + ".");
        outcome.down().map(EndView::down).ifPresent(screen::line);
      }
      case CHANGED_UNPROVEN ->
          screen.line(
              style.odd("Changed, unproven:")
                  + " "
                  + changed(outcome)
                  + number
                  + ". It does not run; 'jolly server start "
                  + outcome.aim().place().server()
                  + "' shows whether it starts.");
      case REMOVED -> screen.line(style.good("Removed") + " " + whole);
      case UNCHANGED -> unchanged(outcome, release);
      case CHECKS_FAILED -> checksFailed(outcome);
      case DRY_RUN ->
          screen.line(
              "A dry run: nothing was changed. Took " + Amounts.time(outcome.millis()) + ".");
      case BLOCKED -> screen.line(style.bad("Blocked:") + " nothing was touched.");
      case TAKEN_BACK, INTERRUPTED -> takenBack(outcome, release, number);
      case STUCK -> screen.line(style.bad("Stuck:") + " this needs hands" + number + ".");
    }
    rest(outcome);
  }

  private static String changed(DeliveryOutcome outcome) {
    return outcome.aim().place().server() + " in " + Amounts.time(outcome.millis());
  }

  /** What speaks no HTTP cannot be opened. */
  private void opened(DeliveryOutcome outcome) {
    String address = outcome.aim().place().address();
    screen.line((address.startsWith("http") ? "Open " : "It listens at ") + style.place(address));
  }

  private void open(DeliveryOutcome outcome) {
    opened(outcome);
    outcome.down().map(EndView::down).ifPresent(screen::line);
  }

  private static String down(DeliveryOutcome.Downtime down) {
    String time = Amounts.time(down.time().toMillis());
    String others =
        down.others().isEmpty() ? "" : ", with " + String.join(", ", down.others()) + " on it";
    return down.wholeServer()
        ? "The server was restarted: down for " + time + others + "; sessions ended."
        : "Between the releases it was down for at most " + time + "; its sessions ended.";
  }

  /** How a recovery ended. */
  public void settled(DeliveryOutcome outcome) {
    String of = outcome.aim().release().application();
    String what = "delivery " + outcome.number() + (of.isEmpty() ? "" : " of " + of);
    switch (outcome.result()) {
      case DELIVERED -> screen.line(style.good("Finished:") + " " + what + " was proven.");
      case TAKEN_BACK ->
          screen.line(
              style.odd("Taken back:")
                  + " "
                  + what
                  + " was not proven; "
                  + outcome.aim().place().server()
                  + " is as it was before.");
      default -> screen.line(style.bad("Stuck:") + " " + what + " needs hands.");
    }
    rest(outcome);
  }

  private void unchanged(DeliveryOutcome outcome, String release) {
    switch (outcome.aim().act()) {
      case "deploy", "rollback" -> {
        screen.line(
            style.good("Unchanged:")
                + " "
                + release
                + " stands on "
                + outcome.aim().place().server()
                + " as described, and its checks pass.");
        opened(outcome);
      }
      case "restart" -> {
        screen.line(
            style.good("Restarted")
                + " "
                + release
                + " on "
                + outcome.aim().place().server()
                + " in "
                + Amounts.time(outcome.millis())
                + outcome
                    .down()
                    .map(down -> ", down for at most " + Amounts.time(down.time().toMillis()))
                    .orElse("")
                + "; its sessions ended.");
        opened(outcome);
      }
      case "check" ->
          screen.line(
              style.good("Passed:")
                  + " "
                  + Amounts.count(outcome.checks().size(), "check", "checks")
                  + " of "
                  + release
                  + " on "
                  + outcome.aim().place().server()
                  + " in "
                  + Amounts.time(outcome.millis())
                  + ".");
      case "start", "stop" ->
          screen.line(
              style.good("Unchanged:")
                  + " "
                  + release
                  + (outcome.aim().act().equals("start") ? " runs" : " is stopped")
                  + " already on "
                  + outcome.aim().place().server()
                  + ".");
      case "undeploy" ->
          screen.line(style.good("Unchanged:") + " " + release + " does not stand there.");
      default ->
          screen.line(
              style.good("Unchanged:")
                  + " "
                  + outcome.aim().place().server()
                  + " is so already; nothing was touched.");
    }
  }

  private void takenBack(DeliveryOutcome outcome, String release, String number) {
    String word = outcome.result() == DeliveryOutcome.Result.INTERRUPTED ? "Interrupted" : "Failed";
    if (outcome.cause().isPresent()) {
      new FailureView(screen).cause(word, outcome.cause().get());
      String log = outcome.aim().place().log();
      if (!log.isEmpty()) {
        screen.line("  log   " + style.place(log));
      }
      screen.gap();
    }
    screen.line(
        style.odd("Taken back:")
            + " "
            + outcome.aim().place().server()
            + " is as it was before this "
            + outcome.aim().act()
            + (release.isEmpty() ? "" : " of " + release)
            + ", after "
            + Amounts.time(outcome.millis())
            + number
            + ".");
  }

  private void rest(DeliveryOutcome outcome) {
    boolean told =
        outcome.result() == DeliveryOutcome.Result.TAKEN_BACK
            || outcome.result() == DeliveryOutcome.Result.INTERRUPTED;
    if (!told) {
      outcome.cause().ifPresent(cause -> new FailureView(screen).cause("Because", cause));
    }
    outcome.left().forEach(left -> screen.line("  left  " + left));
    if (!outcome.left().isEmpty()) {
      screen.line(
          "  fix  settle what is named, then run 'jolly recover --on "
              + outcome.aim().place().server()
              + "'");
    }
    for (Space stays : outcome.stays()) {
      screen.line(
          "Stays, being the application's own data: "
              + style.place(stays.path())
              + " ("
              + Sizes.told(stays.size())
              + ")");
    }
    if (!outcome.note().isEmpty()) {
      screen.line(style.faint("Note: " + outcome.note() + "."));
    }
  }

  private void checksFailed(DeliveryOutcome outcome) {
    List<CheckResult> failed = outcome.checks().stream().filter(check -> !check.passed()).toList();
    screen.line(
        style.bad("Failed:")
            + " "
            + failed.size()
            + " of "
            + Amounts.count(outcome.checks().size(), "check", "checks")
            + ". Nothing was changed.");
    failed.stream()
        .flatMap(check -> check.cause().stream())
        .map(Cause::next)
        .filter(next -> !next.isEmpty())
        .distinct()
        .forEach(next -> screen.line("  fix   " + style.strong(next)));
  }
}
