package jollycrate.cli.output;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import jollycrate.file.Digests;
import jollycrate.journal.DeliveryRecord;

/** Shows the deliveries to a server. */
public final class DeliveriesView {
  private static final DateTimeFormatter WHEN =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss").withZone(ZoneId.systemDefault());

  private static final int MOST_REASON = 44;

  private final Screen screen;

  /** On that screen. */
  public DeliveriesView(Screen screen) {
    this.screen = screen;
  }

  /** One table, the newest last. */
  public void show(List<DeliveryRecord> records) {
    Style style = screen.style();
    if (records.isEmpty()) {
      screen.line("Nothing was delivered there yet.");
      return;
    }
    Table table = new Table("");
    for (DeliveryRecord record : records) {
      boolean back = record.outcome().equals("taken back");
      table
          .row()
          .cell(String.format("%3d", record.delivery()), style::faint)
          .cell(WHEN.format(record.at()))
          .cell((record.application() + " " + record.version()).strip(), style::strong)
          .cell(record.act() + (back ? ", taken back" : ""), back ? style::odd : style::good)
          .cell(Amounts.seconds(record.millis()))
          .cell(Digests.brief(record.digest()), style::faint)
          .cell("by " + record.by() + (back ? ": " + brief(record.reason()) : ""), style::faint);
    }
    table.lines().forEach(screen::line);
  }

  private static String brief(String reason) {
    String line = reason.lines().findFirst().orElse("");
    return line.length() > MOST_REASON ? line.substring(0, MOST_REASON - 1) + "…" : line;
  }
}
