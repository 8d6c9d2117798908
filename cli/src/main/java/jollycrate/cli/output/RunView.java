package jollycrate.cli.output;

import java.nio.file.Path;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.stream.Collectors;
import jollycrate.build.BuildException;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;
import jollycrate.trial.LiveRun;
import jollycrate.watch.LogEntry;
import jollycrate.watch.LogLevel;

/** Shows a run from its first delivery to its end: one line for what goes well. */
public final class RunView implements LiveRun.Watch, LiveLine {
  private static final int MOST_NAMES = 3;
  private static final int MOST_LINES = 8;

  private final Screen screen;
  private final Style style;
  private final LogView log;
  private int rounds;
  private int checks;
  private int failed;

  /** On that screen. */
  public RunView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
    this.log = new LogView(screen);
  }

  private void told(String text) {
    String time = LocalTime.now().truncatedTo(ChronoUnit.SECONDS).toString();
    screen.line(style.faint((time + ":00").substring(0, "00:00:00".length())) + "  " + text);
  }

  @Override
  public Screen screen() {
    return screen;
  }

  @Override
  public void changed(List<String> paths) {
    if (rounds++ == 0) {
      told("starting from " + paths.size() + " files of the build output");
      return;
    }
    String names =
        paths.stream()
            .limit(MOST_NAMES)
            .map(path -> path.replaceFirst("^WEB-INF/classes/", ""))
            .collect(Collectors.joining(", "));
    int more = paths.size() - MOST_NAMES;
    String rest = more > 0 ? " and " + more + " more" : "";
    told(style.place("changed  ") + (paths.isEmpty() ? "only the description" : names + rest));
  }

  @Override
  public void running(Path folder) {
    screen.line("Following every change; Ctrl-C ends it.");
  }

  @Override
  public void foreseen(List<Finding> findings) {
    findings.stream()
        .filter(finding -> finding.level() != Finding.Level.NOTE)
        .forEach(
            finding ->
                told(
                    (finding.level() == Finding.Level.BLOCKER
                            ? style.bad("blocker  ")
                            : style.odd("warn     "))
                        + finding.subject()
                        + ": "
                        + finding.message()
                        + (finding.fix().isEmpty() ? "" : ". " + finding.fix())));
  }

  @Override
  public void checked(CheckResult result) {
    checks++;
    failed += result.passed() ? 0 : 1;
    if (!result.passed()) {
      told(style.bad("FAIL     ") + result.name() + "  " + style.faint(result.request()));
      result.misses().stream()
          .filter(miss -> !miss.got().isEmpty())
          .forEach(
              miss ->
                  screen.line(
                      "          "
                          + miss.what()
                          + ": expected "
                          + miss.expected()
                          + ", got "
                          + miss.got()));
      result
          .cause()
          .filter(cause -> !cause.why().isEmpty())
          .ifPresent(
              cause ->
                  screen.line(
                      "          "
                          + cause.what()
                          + (cause.where().isEmpty() ? "" : " at " + style.place(cause.where()))));
    }
  }

  @Override
  public void ended(DeliveryOutcome outcome) {
    String count = (checks - failed) + " of " + checks + " checks pass";
    String told = failed == 0 ? count : style.bad(count);
    String word = failed == 0 ? style.good("runs     ") : style.odd("runs     ");
    String took = Amounts.time(outcome.millis());
    checks = 0;
    failed = 0;
    switch (outcome.result()) {
      case DELIVERED -> told(word + outcome.aim().place().address() + ", " + told + ", " + took);
      case UNCHANGED, CHECKS_FAILED -> told(word + "on, " + told + ", " + took);
      case INTERRUPTED -> told("interrupted");
      default -> {
        told(style.bad("failed   ") + (rounds > 1 ? "what ran before runs on" : "it does not run"));
        outcome.cause().ifPresent(this::cause);
      }
    }
  }

  private void cause(Cause cause) {
    screen.line("          " + cause.what());
    if (!cause.where().isEmpty()) {
      screen.line("          " + style.faint("at    ") + style.place(cause.where()));
    }
    cause.why().forEach(line -> screen.line("          " + style.faint("why   ") + line));
    if (!cause.next().isEmpty()) {
      screen.line("          " + style.faint("fix   ") + cause.next());
    }
  }

  @Override
  public void failed(RuntimeException reason) {
    told(style.bad("failed   ") + reason.getMessage());
    if (reason instanceof BuildException build && !build.output().isEmpty()) {
      screen.line(build.output());
    }
  }

  @Override
  public void printed(LogEntry entry) {
    if (entry.level() == LogLevel.ERROR || entry.level() == LogLevel.NONE) {
      int shown = Math.min(MOST_LINES, entry.lines().size());
      log.show(new LogEntry(entry.level(), entry.source(), entry.lines().subList(0, shown)));
      if (shown < entry.lines().size()) {
        screen.line(style.faint("          and " + (entry.lines().size() - shown) + " more lines"));
      }
    }
  }

  /** The run is over. */
  public void over() {
    screen.gap();
    told("ended; nothing is left");
  }
}
