package jollycrate.cli.output;

import java.util.List;
import java.util.Locale;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.foresee.Finding;
import jollycrate.pack.Packed;
import jollycrate.server.Cause;
import jollycrate.server.Server;
import jollycrate.step.Step;
import jollycrate.step.StepList;

/** Shows a delivery while it goes on, and how it ended. */
public final class DeliveryView implements LiveLine {
  private static final String MARGIN = "  ";
  private static final int NAME_WIDTH = 34;

  private final Screen screen;
  private final Style style;
  private boolean proofBegun;

  /** On that screen. */
  public DeliveryView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  private void heading(String text) {
    screen.gap();
    screen.line(style.strong(text));
  }

  @Override
  public Screen screen() {
    return screen;
  }

  @Override
  public void recovering(int delivery, String what) {
    screen.note(
        style.live()
            ? style.odd("delivery " + delivery + ": ") + what
            : "delivery " + delivery + ": " + what);
  }

  @Override
  public void note(String text) {
    screen.note(text);
  }

  @Override
  public void packed(Packed packed) {
    packed.remarks().stream()
        .filter(Packed.Remark::warning)
        .forEach(
            remark -> {
              screen.line(style.odd("packed with a warning: ") + remark.text());
              remark.details().forEach(detail -> screen.line(MARGIN + style.faint(detail)));
            });
    packed.remarks().stream()
        .filter(remark -> !remark.warning() && !remark.details().isEmpty())
        .forEach(remark -> screen.line("packed: " + remark.text()));
  }

  @Override
  public void looked(String what) {
    screen.line(style.place(what));
  }

  @Override
  public void foreseen(List<Finding> findings) {
    if (findings.isEmpty()) {
      return;
    }
    heading("findings");
    for (Finding finding : findings) {
      finding(finding);
    }
  }

  private void finding(Finding finding) {
    String level = String.format("%-8s", finding.level().name().toLowerCase(Locale.ROOT));
    String shown =
        switch (finding.level()) {
          case BLOCKER -> style.bad(level);
          case WARN -> style.odd(level);
          case NOTE -> style.faint(level);
        };
    screen.line(MARGIN + shown + style.strong(finding.subject()) + ": " + finding.message());
    String indent = MARGIN + " ".repeat(level.length());
    if (!finding.seen().isEmpty()) {
      screen.line(indent + style.faint("seen  ") + finding.seen());
    }
    if (!finding.fix().isEmpty()) {
      screen.line(indent + style.faint("fix   ") + finding.fix());
    }
  }

  @Override
  public void planned(Server server, StepList steps, List<String> diffs) {
    heading("steps");
    Table table = new Table(MARGIN);
    int number = 0;
    for (Step step : steps.change()) {
      row(table, ++number, StepText.of(server, step));
    }
    for (Step step : steps.tidy()) {
      row(table, ++number, StepText.of(server, step));
    }
    table.lines().forEach(screen::line);
    diffs.forEach(this::diff);
  }

  private void row(Table table, int number, StepText step) {
    table
        .row()
        .cell(String.format("%2d", number), style::faint)
        .cell(step.verb())
        .cell(step.object());
  }

  private void diff(String unified) {
    screen.gap();
    unified.lines().forEach(line -> screen.line(diffLine(line)));
  }

  private String diffLine(String line) {
    String shown = MARGIN + line;
    if (line.startsWith("+++ ") || line.startsWith("--- ") || line.startsWith("@@")) {
      return style.faint(shown);
    }
    if (line.startsWith("+")) {
      return style.good(shown);
    }
    return line.startsWith("-") ? style.gone(shown) : shown;
  }

  @Override
  public void checked(CheckResult result) {
    if (!proofBegun) {
      heading("checks");
      proofBegun = true;
    }
    String word =
        result.passed()
            ? result.proves() ? style.good("pass") : style.odd("open")
            : style.bad("FAIL");
    String name = String.format("%-" + NAME_WIDTH + "s", result.name());
    String status = result.status() == 0 ? " - " : "" + result.status();
    String time = String.format("%6d ms", result.took().toMillis());
    screen.line(
        MARGIN + word + "  " + name + "  " + status + time + "  " + style.faint(result.request()));
    if (result.status() > 0) {
      result.misses().forEach(this::miss);
    }
    result.cause().ifPresent(this::checkCause);
  }

  private void miss(CheckResult.Miss miss) {
    String indent = MARGIN + "      ";
    screen.line(indent + miss.what() + " expected " + miss.expected());
    screen.line(indent + " ".repeat(miss.what().length()) + " got      " + style.bad(miss.got()));
  }

  private void checkCause(Cause cause) {
    screen.line(MARGIN + "      " + cause.what());
    if (!cause.where().isEmpty() && !cause.where().startsWith("http")) {
      screen.line(MARGIN + "      at " + style.place(cause.where()));
    }
  }

  @Override
  public void takingBack(Cause cause) {
    proofBegun = false;
    screen.live("taking back ...");
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

  /** How it ended. */
  public void ended(DeliveryOutcome outcome) {
    String release = (outcome.application() + " " + outcome.version()).strip();
    String where = " " + (outcome.act().equals("undeploy") ? "from " : "to ") + outcome.server();
    String number = outcome.number() > 0 ? " (delivery " + outcome.number() + ")" : "";
    String took = Amounts.seconds(outcome.millis());
    screen.gap();
    switch (outcome.result()) {
      case DELIVERED -> {
        screen.line(style.good("Delivered") + " " + release + where + " in " + took + number + ".");
        screen.line("Open " + style.place(outcome.address()));
      }
      case DELIVERED_UNPROVEN -> {
        screen.line(
            style.odd("Delivered, unproven:")
                + " "
                + release
                + where
                + " in "
                + took
                + number
                + ". It started, but nothing that was asked shows that it works.");
        screen.line("Open " + style.place(outcome.address()));
        screen.line(
            "  fix   "
                + style.strong("Describe a [[check]] in jolly.toml for a page that must answer"));
      }
      case REMOVED ->
          screen.line(style.good("Removed") + " " + release + where + " in " + took + number + ".");
      case UNCHANGED -> unchanged(outcome, release);
      case CHECKS_FAILED -> checksFailed(outcome);
      case DRY_RUN -> screen.line("A dry run: nothing was changed. Took " + took + ".");
      case BLOCKED -> screen.line(style.bad("Blocked:") + " nothing was touched.");
      case TAKEN_BACK, INTERRUPTED -> takenBack(outcome, release, took, number);
      case STUCK -> screen.line(style.bad("Stuck:") + " this needs hands" + number + ".");
    }
    rest(outcome);
  }

  /** How a recovery ended. */
  public void settled(DeliveryOutcome outcome) {
    String what = "delivery " + outcome.number() + " of " + outcome.application();
    switch (outcome.result()) {
      case DELIVERED -> screen.line(style.good("Finished:") + " " + what + " was proven.");
      case TAKEN_BACK ->
          screen.line(
              style.odd("Taken back:")
                  + " "
                  + what
                  + " was not proven; "
                  + outcome.server()
                  + " is as it was before.");
      default -> screen.line(style.bad("Stuck:") + " " + what + " needs hands.");
    }
    rest(outcome);
  }

  private void unchanged(DeliveryOutcome outcome, String release) {
    switch (outcome.act()) {
      case "deploy" -> {
        screen.line(
            style.good("Unchanged:")
                + " "
                + release
                + " stands on "
                + outcome.server()
                + " as described, and its checks pass.");
        screen.line("Open " + style.place(outcome.address()));
      }
      case "check" ->
          screen.line(
              style.good("Passed:")
                  + " "
                  + Amounts.count(outcome.checks().size(), "check", "checks")
                  + " of "
                  + release
                  + " on "
                  + outcome.server()
                  + " in "
                  + Amounts.seconds(outcome.millis())
                  + ".");
      default -> screen.line(style.good("Unchanged:") + " " + release + " does not stand there.");
    }
  }

  private void takenBack(DeliveryOutcome outcome, String release, String took, String number) {
    String word = outcome.result() == DeliveryOutcome.Result.INTERRUPTED ? "Interrupted" : "Failed";
    if (outcome.cause().isPresent()) {
      new FailureView(screen).cause(word, outcome.cause().get());
      screen.gap();
    }
    screen.line(
        style.odd("Taken back:")
            + " "
            + outcome.server()
            + " is as it was before this "
            + outcome.act()
            + " of "
            + release
            + ", after "
            + took
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
          "  fix  settle what is named, then run 'jolly recover --on " + outcome.server() + "'");
    }
    for (String stays : outcome.stays()) {
      screen.line("Stays, being the application's own data: " + style.place(stays));
    }
    if (!outcome.note().isEmpty()) {
      screen.line(style.faint("Note: " + outcome.note() + "."));
    }
  }
}
