package jollycrate.cli.output;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.check.CheckResult;
import jollycrate.delivery.Rounds;
import jollycrate.server.Cause;

/**
 * Shows checks that are made again and again: on a terminal in place, with how their times went;
 * elsewhere a line for each change.
 */
public final class WatchView {
  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT).withZone(ZoneId.systemDefault());

  private static final int MOST_ROUNDS = 24;
  private static final int MOST_TOLD = 4;
  private static final int NAME_WIDTH = 36;
  private static final String MISSED = "×";

  private final Screen screen;
  private final Style style;
  private final String server;
  private final Map<String, Course> courses = new LinkedHashMap<>();
  private int drawn;
  private int wrong;
  private Rounds.Round last;

  /** How one check went so far. */
  private static final class Course {
    private final List<CheckResult> results = new ArrayList<>();
    private Instant since;

    private CheckResult last() {
      return results.get(results.size() - 1);
    }

    /** What passes of the table of who may see what is told together. */
    private boolean isShown() {
      return last().cell().isEmpty() || !last().passed();
    }

    /** Whether it went otherwise than the time before. */
    private boolean add(CheckResult result, Instant at) {
      boolean changed = !results.isEmpty() && last().passed() != result.passed();
      if (results.isEmpty() || changed) {
        since = at;
      }
      results.add(result);
      if (results.size() > MOST_ROUNDS) {
        results.remove(0);
      }
      return changed;
    }
  }

  /**
   * On that screen.
   *
   * @param server where what is watched stands
   */
  public WatchView(Screen screen, String server) {
    this.screen = screen;
    this.style = screen.style();
    this.server = server;
  }

  /** Whether the round that ended last passed; false before there is one. */
  public boolean passed() {
    return last != null && last.passed();
  }

  /** Shows a round. */
  public void show(Rounds.Round round) {
    boolean changed = last == null || last.passed() != round.passed();
    changed |= last != null && !last.trouble().equals(round.trouble());
    List<CheckResult> turned = new ArrayList<>();
    for (CheckResult result : round.checks()) {
      if (courses.computeIfAbsent(result.name(), name -> new Course()).add(result, round.at())) {
        turned.add(result);
      }
    }
    wrong += round.passed() ? 0 : 1;
    last = round;
    if (style.colour()) {
      List<String> lines = lines(round);
      screen.redraw(drawn, lines);
      drawn = lines.size();
    } else if (changed || !turned.isEmpty()) {
      boolean first = round.number() == 1;
      tell(round, first ? round.checks().stream().filter(one -> !one.passed()).toList() : turned);
    }
  }

  private void tell(Rounds.Round round, List<CheckResult> turned) {
    screen.line(TIME.format(round.at()) + "  " + what(round) + ": " + state(round));
    turned.stream()
        .limit(MOST_TOLD)
        .forEach(
            result ->
                screen.line(
                    "          "
                        + (result.passed() ? "pass  " : "FAIL  ")
                        + result.name()
                        + (result.passed() ? "" : ": " + missed(result))));
    if (turned.size() > MOST_TOLD) {
      screen.line("          and " + (turned.size() - MOST_TOLD) + " more");
    }
  }

  private String what(Rounds.Round round) {
    return round.release().isEmpty() ? server : round.release() + " on " + server;
  }

  private String state(Rounds.Round round) {
    if (!round.trouble().isEmpty()) {
      return round.trouble();
    }
    long passing = round.checks().stream().filter(CheckResult::passed).count();
    String count = passing + " of " + Amounts.count(round.checks().size(), "check", "checks");
    return count + (passing == 1 ? " passes" : " pass");
  }

  private List<String> lines(Rounds.Round round) {
    List<String> lines = new ArrayList<>();
    lines.add(
        style.strong(what(round))
            + style.faint("  round " + round.number() + ", " + TIME.format(round.at())));
    lines.add("");
    Table table = new Table("  ");
    courses.entrySet().stream()
        .filter(one -> one.getValue().isShown())
        .forEach(one -> row(table, one.getKey(), one.getValue()));
    access(table, round);
    table.lines().forEach(lines::add);
    if (round.trouble().isEmpty()) {
      causes(lines);
    }
    lines.add("");
    String state = state(round);
    lines.add(
        (round.passed() ? style.good(state) : style.bad(state))
            + style.faint(
                wrong == 0
                    ? "; every round passed. Ctrl-C ends it"
                    : "; " + wrong + " of " + round.number() + " rounds did not. Ctrl-C ends it"));
    return lines;
  }

  /** What several checks have in common is told of the first of them. */
  private void causes(List<String> lines) {
    Set<String> told = new HashSet<>();
    courses.values().stream()
        .filter(course -> !course.last().passed())
        .filter(course -> told.add(course.last().cause().map(Cause::what).orElse("")))
        .limit(MOST_TOLD)
        .forEach(course -> told(course, lines));
  }

  private void access(Table table, Rounds.Round round) {
    long cells =
        round.checks().stream().filter(one -> one.cell().isPresent() && one.passed()).count();
    if (cells > 0) {
      String count = Amounts.count((int) cells, "cell", "cells");
      table.row().cell("pass", style::good).cell("who may see what, " + count);
    }
  }

  private void row(Table table, String name, Course course) {
    CheckResult result = course.last();
    String shown = name.length() > NAME_WIDTH ? name.substring(0, NAME_WIDTH - 1) + "…" : name;
    table
        .row()
        .cell(result.passed() ? "pass" : "FAIL", result.passed() ? style::good : style::bad)
        .cell(shown)
        .cell(String.format("%7s", Amounts.time(result.took().toMillis())))
        .cell(trend(course), this::coloured);
  }

  private void told(Course course, List<String> lines) {
    lines.add("");
    lines.add(
        "  "
            + style.bad(course.last().name())
            + style.faint(" since " + TIME.format(course.since)));
    lines.add("  " + missed(course.last()));
    course
        .last()
        .cause()
        .ifPresent(cause -> lines.add("  " + cause.what() + " " + style.place(cause.where())));
  }

  private static String missed(CheckResult result) {
    return result.misses().stream()
        .map(miss -> miss.what() + " expected " + miss.expected() + ", got " + miss.got())
        .collect(Collectors.joining("; "));
  }

  private String coloured(String trend) {
    return Arrays.stream(
            trend.split(
                "(?<=" + MISSED + ")(?!" + MISSED + ")|(?<!" + MISSED + ")(?=" + MISSED + ")"))
        .map(part -> part.startsWith(MISSED) ? style.bad(part) : style.place(part))
        .collect(Collectors.joining());
  }

  /** Each time by its share of the slowest. */
  private static String trend(Course course) {
    long slowest = course.results.stream().mapToLong(WatchView::micros).max().orElse(1);
    StringBuilder trend = new StringBuilder();
    for (CheckResult result : course.results) {
      trend.append(result.passed() ? "" + Blocks.column(micros(result), slowest) : MISSED);
    }
    return trend.toString();
  }

  /** At least one, so that something is seen. */
  private static long micros(CheckResult result) {
    return Math.max(1, result.took().toNanos() / 1000);
  }
}
