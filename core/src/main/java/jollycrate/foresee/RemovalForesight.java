package jollycrate.foresee;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.server.Splicer;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What is foreseen of taking an application away. */
public final class RemovalForesight {
  private RemovalForesight() {}

  /**
   * Blockers against removing it.
   *
   * @param splicers how fragments stand in a file
   */
  public static List<Finding> look(
      Stock stock, Standing.Owner owner, Function<Path, Optional<Splicer>> splicers) {
    return Stream.of(
            ProcessRule.look(stock, owner.swap()), PieceRule.changed(stock, owner, splicers))
        .flatMap(List::stream)
        .toList();
  }
}
