package jollycrate.foresee;

import java.util.List;
import java.util.stream.Stream;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What is foreseen of taking an application away. */
public final class RemovalForesight {
  private RemovalForesight() {}

  /** Blockers against removing it. */
  public static List<Finding> look(Stock stock, Standing.Owner owner) {
    return Stream.of(ProcessRule.look(stock), PieceRule.changed(stock, owner))
        .flatMap(List::stream)
        .toList();
  }
}
