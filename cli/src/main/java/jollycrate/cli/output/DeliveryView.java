package jollycrate.cli.output;

import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.file.Digests;
import jollycrate.foresee.Finding;
import jollycrate.pack.Packed;
import jollycrate.server.Cause;
import jollycrate.server.Server;
import jollycrate.step.StepList;
import jollycrate.stock.Space;
import jollycrate.watch.Aim;

/** Shows a delivery while it goes on, and how it ended. */
public final class DeliveryView implements LiveLine {
  private static final String MARGIN = "  ";

  private final Screen screen;
  private final Style style;
  private final boolean diffs;
  private final CheckRows checks;
  private boolean checksBegun;

  /**
   * On that screen.
   *
   * @param diffs whether changes of files are shown in full
   */
  public DeliveryView(Screen screen, boolean diffs) {
    this.screen = screen;
    this.diffs = diffs;
    this.checks = new CheckRows(screen);
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
  public void looked(Aim aim, String path) {
    Aim.Release release = aim.release();
    Aim.Place place = aim.place();
    boolean deploy = aim.act().equals("deploy");
    String change =
        deploy && !release.earlier().isEmpty() && !release.earlier().equals(release.version())
            ? release.application() + " " + release.earlier() + " -> " + release.version()
            : release.name();
    screen.line(
        style.place(
            aim.act()
                + " "
                + change
                + (deploy ? " to " : " from ")
                + place.server()
                + " at "
                + path));
    Table table = new Table(MARGIN);
    table
        .row()
        .cell("server", style::faint)
        .cell(place.kind() + " on Java " + place.java() + ", " + place.folder());
    if (deploy) {
      table
          .row()
          .cell("artifact", style::faint)
          .cell(
              Amounts.size(release.size())
                  + ", SHA-256 "
                  + Digests.brief(release.digest())
                  + (release.revision().isEmpty()
                      ? ""
                      : ", revision " + Amounts.revision(release.revision())));
    }
    table.lines().forEach(screen::line);
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
  public void planned(Server server, StepList steps, List<String> changes) {
    checks.endTellsTheFirst();
    heading("steps");
    Table table = new Table(MARGIN);
    List<StepText> rows =
        StepText.together(
            server,
            Stream.concat(steps.change().stream(), steps.tidy().stream()).toList(),
            changes);
    for (int i = 0; i < rows.size(); i++) {
      table
          .row()
          .cell(String.format("%2d", i + 1), style::faint)
          .cell(rows.get(i).verb())
          .cell(rows.get(i).object());
    }
    table.lines().forEach(screen::line);
    if (diffs) {
      changes.forEach(this::diff);
    }
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
    if (!checksBegun) {
      heading("checks");
      checksBegun = true;
    }
    checks.show(result);
  }

  @Override
  public void takingBack(Cause cause) {
    checksBegun = false;
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
    String release = outcome.aim().release().name();
    String where =
        (outcome.aim().act().equals("undeploy") ? " from " : " to ")
            + outcome.aim().place().server();
    String number = outcome.number() > 0 ? " (delivery " + outcome.number() + ")" : "";
    String whole = release + where + " in " + Amounts.time(outcome.millis()) + number + ".";
    screen.gap();
    switch (outcome.result()) {
      case DELIVERED -> {
        screen.line(style.good("Delivered") + " " + whole);
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

  private void open(DeliveryOutcome outcome) {
    screen.line("Open " + style.place(outcome.aim().place().address()));
    outcome.down().map(DeliveryView::down).ifPresent(screen::line);
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
    String what = "delivery " + outcome.number() + " of " + outcome.aim().release().application();
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
      case "deploy" -> {
        screen.line(
            style.good("Unchanged:")
                + " "
                + release
                + " stands on "
                + outcome.aim().place().server()
                + " as described, and its checks pass.");
        screen.line("Open " + style.place(outcome.aim().place().address()));
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
      default -> screen.line(style.good("Unchanged:") + " " + release + " does not stand there.");
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
            + " of "
            + release
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
              + Amounts.size(stays.size())
              + ")");
    }
    if (!outcome.note().isEmpty()) {
      screen.line(style.faint("Note: " + outcome.note() + "."));
    }
  }
}
