package jollycrate.cli.output;

import java.util.List;
import java.util.function.ToLongFunction;
import jollycrate.delivery.PastDeliveries;
import jollycrate.file.Sizes;

/** Shows what releases needed that came up, one below the other. */
public final class DeliveryTimesView {
  private static final int WIDTH = 16;

  private final Screen screen;

  /** On that screen. */
  public DeliveryTimesView(Screen screen) {
    this.screen = screen;
  }

  /** The oldest first; each bar is its share of the longest. */
  public void show(List<PastDeliveries.Times> times) {
    if (times.isEmpty()) {
      screen.line("Nothing was measured there yet: that is done when a release comes up.");
      return;
    }
    Style style = screen.style();
    ToLongFunction<PastDeliveries.Times> up = one -> one.measured().up().toMillis();
    ToLongFunction<PastDeliveries.Times> answer = one -> one.measured().firstAnswer().toMillis();
    ToLongFunction<PastDeliveries.Times> memory = one -> one.measured().memory();
    Table table = new Table("");
    table.row();
    List.of("no.", "release", "up in", "", "first answer", "", "memory", "")
        .forEach(head -> table.cell(head, style::faint));
    for (PastDeliveries.Times one : times) {
      table
          .row()
          .cell(String.format("%3d", one.delivery()), style::faint)
          .cell(one.release(), style::strong);
      table.cell(Amounts.time(up.applyAsLong(one))).cell(bar(one, times, up), style::place);
      table.cell(Amounts.time(answer.applyAsLong(one))).cell(bar(one, times, answer), style::place);
      long bytes = memory.applyAsLong(one);
      table
          .cell(bytes == 0 ? "not seen" : Sizes.told(bytes))
          .cell(bar(one, times, memory), style::place);
    }
    table.lines().forEach(screen::line);
  }

  private static String bar(
      PastDeliveries.Times one,
      List<PastDeliveries.Times> all,
      ToLongFunction<PastDeliveries.Times> amount) {
    long most = all.stream().mapToLong(amount).max().orElse(1);
    return Blocks.bar(amount.applyAsLong(one), most, WIDTH);
  }
}
