package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.journal.Journal;
import jollycrate.server.Placement;
import jollycrate.watch.Marks;
import jollycrate.watch.Site;

/** What a server made for a release that is taken back, and leaves behind when that is gone. */
record Leftovers(Site site, Journal journal) {

  /** Those that belong to nothing that stands. */
  List<Path> paths() {
    List<Path> left = placement().map(one -> one.made().stays()).orElse(List.of());
    if (left.isEmpty()) {
      return List.of();
    }
    Set<Path> standing =
        site.stockTaker().standing().applications().stream()
            .flatMap(owner -> owner.placement().made().stays().stream())
            .collect(Collectors.toSet());
    return left.stream().filter(path -> !standing.contains(path)).toList();
  }

  private Optional<Placement> placement() {
    return Optional.ofNullable(journal.opened().placement());
  }

  /** Where the server writes what becomes of this delivery. */
  List<Path> marks() {
    return placement().map(placement -> placement.made().marks()).orElse(List.of());
  }

  /**
   * Takes away what it wrote of the switch of this delivery, before it writes of the earlier one.
   */
  void clearMarks() {
    placement()
        .map(placement -> new Marks(site, placement).written())
        .orElse(List.of())
        .forEach(site.files()::deleteTree);
  }

  /** Takes away those that belong to nothing that stands. */
  void clear() {
    paths().forEach(site.files()::deleteTree);
  }
}
