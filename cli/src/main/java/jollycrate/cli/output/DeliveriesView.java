package jollycrate.cli.output;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.file.Digests;
import jollycrate.journal.DeliveryRecord;
import jollycrate.server.Server;
import jollycrate.step.StepList;

/** Shows the deliveries to a server. */
public final class DeliveriesView {
  private static final DateTimeFormatter WHEN =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss z", Locale.ROOT)
          .withZone(ZoneId.systemDefault());

  private static final int MOST_REASON = 44;

  private final Screen screen;

  /** On that screen. */
  public DeliveriesView(Screen screen) {
    this.screen = screen;
  }

  /**
   * One table, the newest last.
   *
   * @param standing numbers of those whose release stands now
   * @param kept numbers of those that can be delivered again
   */
  public void show(List<DeliveryRecord> records, List<Integer> standing, List<Integer> kept) {
    Style style = screen.style();
    if (records.isEmpty()) {
      screen.line("Nothing was delivered there yet.");
      return;
    }
    Table table = new Table("");
    table
        .row()
        .cell("no.", style::faint)
        .cell("when", style::faint)
        .cell("release", style::faint)
        .cell("act", style::faint)
        .cell("took", style::faint)
        .cell("SHA-256", style::faint)
        .cell("now", style::faint)
        .cell("by", style::faint);
    for (DeliveryRecord record : records) {
      boolean back = record.outcome().equals("taken back");
      table
          .row()
          .cell(String.format("%3d", record.delivery()), style::faint)
          .cell(WHEN.format(record.at()))
          .cell(name(record), style::strong)
          .cell(act(record) + (back ? ", taken back" : ""), back ? style::odd : style::good)
          .cell(Amounts.time(record.millis()))
          .cell(Digests.brief(record.digest()), style::faint)
          .cell(now(record.delivery(), standing, kept), style::faint)
          .cell(record.by() + (back ? ": " + brief(record.reason()) : ""), style::faint);
    }
    table.lines().forEach(screen::line);
  }

  /** One delivery, told whole. */
  public void show(DeliveryRecord record) {
    Style style = screen.style();
    Table table = new Table("");
    row(table, "delivery", record.delivery() + ", " + act(record) + ", " + record.outcome());
    row(table, "release", record.application().isEmpty() ? "" : name(record));
    row(table, "when", WHEN.format(record.at()) + ", " + Amounts.time(record.millis()));
    row(table, "by", record.by());
    row(table, "at", record.address());
    row(table, "artifact", "SHA-256 " + record.digest());
    row(table, "revision", record.revision());
    row(table, "described", "SHA-256 " + record.description());
    table.lines().forEach(screen::line);
    if (!record.reason().isEmpty()) {
      screen.gap();
      record.reason().lines().forEach(line -> screen.line(style.bad(line)));
    }
  }

  /** What was told when it ended, told again. */
  public void again(Server server, DeliveryOutcome outcome) {
    DeliveryView view = new DeliveryView(screen, true);
    view.foreseen(outcome.findings());
    view.planned(server, new StepList(outcome.steps(), List.of(), Map.of()), outcome.diffs());
    outcome.checks().forEach(view::checked);
    new EndView(screen).ended(outcome);
  }

  private void row(Table table, String name, String value) {
    if (!value.isEmpty() && !value.equals("SHA-256 ")) {
      table.row().cell(name, screen.style()::faint).cell(value);
    }
  }

  private static String now(int delivery, List<Integer> standing, List<Integer> kept) {
    if (standing.contains(delivery)) {
      return "stands";
    }
    return kept.contains(delivery) ? "kept" : "";
  }

  private static String name(DeliveryRecord record) {
    return record.application().isEmpty()
        ? "the server itself"
        : (record.application() + " " + record.version()).strip();
  }

  private static String act(DeliveryRecord record) {
    return record.act() + (record.restores() > 0 ? " to " + record.restores() : "");
  }

  private static String brief(String reason) {
    String line = reason.lines().findFirst().orElse("");
    return line.length() > MOST_REASON ? line.substring(0, MOST_REASON - 1) + "…" : line;
  }
}
