package jollycrate.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import jollycrate.check.CheckResult;
import jollycrate.check.Times;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.file.Digests;
import jollycrate.file.Shipped;
import jollycrate.file.Sizes;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;
import jollycrate.watch.Aim;
import org.jsoup.nodes.Element;

/**
 * An act with its checks as one page for people who were not there. It stands by itself: style and
 * pictures are in it, and nothing is loaded or run.
 */
public final class ReportPage {
  private static final DateTimeFormatter WHEN =
      DateTimeFormatter.ofPattern("d MMMM yyyy, HH:mm:ss z", Locale.ROOT)
          .withZone(ZoneId.systemDefault());

  private final DeliveryOutcome outcome;
  private final Instant at;
  private final boolean right;
  private final PageText page;
  private final Set<String> told = new HashSet<>();

  /**
   * @param at when it was
   * @param right whether the act came to a good end
   * @param mask takes secrets out of a text
   */
  public ReportPage(
      DeliveryOutcome outcome, Instant at, boolean right, UnaryOperator<String> mask) {
    this.outcome = outcome;
    this.at = at;
    this.right = right;
    this.page = new PageText(mask);
  }

  /** Writes it. */
  public void write(Path file) throws IOException {
    Files.writeString(file, html());
  }

  private String html() throws IOException {
    Aim aim = outcome.aim();
    String what = aim.release().name().isEmpty() ? "the server itself" : aim.release().name();
    String title = what + DeliveryView.preposition(aim.act()) + aim.place().server();
    Element body = page.begin(title, Shipped.text(ReportPage.class, "/report.css"));
    Element head = body.appendElement("header");
    page.add(head, "p", aim.act() + ", " + WHEN.format(at)).addClass("act");
    page.add(head, "h1", title);
    page.add(head, "p", verdict()).addClass("verdict").addClass(right ? "good" : "bad");
    Element main = body.appendElement("main");
    outcome.cause().ifPresent(cause -> cause(page.section(main, "Why"), cause));
    checks(main);
    access(main);
    findings(main);
    facts(main);
    Element foot = body.appendElement("footer");
    page.add(foot, "p", "Made by Jolly Crate. Nothing is loaded from elsewhere.");
    return page.html();
  }

  private String verdict() {
    long failed = outcome.checks().stream().filter(check -> !check.passed()).count();
    int all = outcome.checks().size();
    String checks =
        failed == 0
            ? Amounts.count(all, "check passes", "checks pass")
            : failed + " of " + Amounts.count(all, "check", "checks") + " failed";
    String how = outcome.result().name().toLowerCase(Locale.ROOT).replace('_', ' ');
    String number = outcome.number() > 0 ? "delivery " + outcome.number() + ", " : "";
    boolean only = outcome.aim().act().equals("check");
    boolean back = how.equals("taken back");
    String end = only ? "" : how + (back ? ", all is as it was before; " : "; ");
    return (right ? "Right: " : "Failed: ")
        + end
        + (all == 0 ? "nothing was asked" : checks)
        + " ("
        + number
        + Amounts.time(outcome.millis())
        + ")";
  }

  private void checks(Element main) {
    List<CheckResult> rows =
        outcome.checks().stream().filter(check -> check.cell().isEmpty()).toList();
    if (rows.isEmpty()) {
      return;
    }
    Element section = page.section(main, "Checks");
    Element table = page.table(section, "Checks", "", "check", "status", "time", "request");
    for (CheckResult check : rows) {
      Element row = table.appendElement("tr");
      page.mark(row, check.passed(), check.passed() ? "pass" : "FAIL");
      Element name = page.add(row, "th", check.name()).attr("scope", "row");
      page.add(row, "td", check.status() == 0 ? "none" : "" + check.status()).addClass("number");
      page.add(row, "td", Amounts.time(check.took().toMillis())).addClass("number");
      page.add(row, "td", check.request()).addClass("code");
      misses(name, check);
      check.times().ifPresent(times -> times(section, check.name(), times));
      picture(section, check);
    }
  }

  /** What was missed, and why; a cause that several checks share is told once. */
  private void misses(Element at, CheckResult check) {
    for (CheckResult.Miss miss : check.misses()) {
      Element line = page.add(at, "p", miss.what() + ": expected " + miss.expected() + ", got ");
      page.add(line.addClass("miss"), "span", miss.got()).addClass("bad");
    }
    check
        .cause()
        .map(cause -> (cause.what() + " " + cause.where()).strip())
        .filter(told::add)
        .ifPresent(cause -> page.add(at, "p", cause).addClass("miss"));
  }

  private void picture(Element section, CheckResult check) {
    if (!check.picture().isEmpty()) {
      Element figure = section.appendElement("figure");
      page.add(figure, "figcaption", check.name() + ", in a browser");
      page.photo(figure, check.picture(), "What a browser showed for " + check.request());
    }
  }

  private void times(Element section, String name, Times times) {
    Element figure = section.appendElement("figure");
    page.add(figure, "figcaption", name + ": " + TimesRows.count(times));
    String spread = String.join(", ", TimesRows.percentiles(times));
    page.bars(figure, times.bars(), "Spread of the times: " + spread);
    page.add(figure, "p", spread).addClass("code");
  }

  private void access(Element main) {
    AccessMatrix matrix = AccessMatrix.of(outcome.checks());
    if (matrix.isEmpty()) {
      return;
    }
    Element section = page.section(main, "Who may see what");
    String[] heads = new String[matrix.people().size() + 1];
    heads[0] = "path";
    for (int i = 0; i < matrix.people().size(); i++) {
      heads[i + 1] = matrix.people().get(i);
    }
    Element table = page.table(section, "Who may see what", heads);
    for (String path : matrix.paths()) {
      Element row = table.appendElement("tr");
      page.add(row, "th", path).attr("scope", "row").addClass("code");
      for (String who : matrix.people()) {
        Optional<CheckResult> found = matrix.at(path, who);
        boolean passed = found.map(CheckResult::passed).orElse(true);
        page.mark(row, passed, found.map(AccessMatrix::told).orElse(""));
      }
    }
  }

  private void findings(Element main) {
    if (outcome.findings().isEmpty()) {
      return;
    }
    Element list = page.section(main, "Findings").appendElement("ul");
    for (Finding finding : outcome.findings()) {
      String level = finding.level().name().toLowerCase(Locale.ROOT);
      Element item =
          page.add(list, "li", level + ", " + finding.subject() + ": " + finding.message());
      if (!finding.seen().isEmpty()) {
        page.add(item, "p", "seen " + finding.seen()).addClass("code");
      }
      if (!finding.fix().isEmpty()) {
        page.add(item, "p", finding.fix());
      }
    }
  }

  private void cause(Element section, Cause cause) {
    page.add(section, "p", cause.what()).addClass("bad");
    if (!cause.where().isEmpty()) {
      page.add(section, "p", "at " + cause.where()).addClass("code");
    }
    cause.why().forEach(why -> page.add(section, "p", why).addClass("code"));
    if (!cause.next().isEmpty()) {
      page.add(section, "p", "Fix: " + cause.next()).addClass("fix");
    }
  }

  private void facts(Element main) {
    Aim.Place place = outcome.aim().place();
    Aim.Release release = outcome.aim().release();
    Element list = page.section(main, "Where and what").appendElement("dl").addClass("facts");
    fact(list, "address", place.address());
    fact(list, "server", place.kind() + " on Java " + place.java());
    fact(list, "folder", place.folder());
    fact(list, "log", place.log());
    fact(
        list,
        "release before",
        release.earlier().equals(release.version()) ? "" : release.earlier());
    fact(
        list,
        "artifact",
        release.digest().isEmpty()
            ? ""
            : Sizes.told(release.size()) + ", SHA-256 " + Digests.brief(release.digest()));
    fact(list, "revision", release.revision());
    fact(
        list,
        "down",
        outcome.down().map(down -> "at most " + Amounts.time(down.time().toMillis())).orElse(""));
    fact(list, "note", outcome.note());
  }

  private void fact(Element list, String name, String value) {
    if (!value.isEmpty()) {
      page.add(list, "dt", name);
      page.add(list, "dd", value);
    }
  }
}
