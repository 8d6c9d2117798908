package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.journal.Journal;
import jollycrate.server.Placement;
import jollycrate.watch.Site;

/** What a server made for a release that is taken back, and leaves behind when that is gone. */
record Leftovers(Site site, Journal journal) {

  /** Those that belong to nothing that stands. */
  List<Path> paths() {
    Optional<Placement> placement = Optional.ofNullable(journal.opened().placement());
    List<Path> left = placement.map(one -> one.made().stays()).orElse(List.of());
    if (left.isEmpty()) {
      return List.of();
    }
    Set<Path> standing =
        site.stockTaker().standing().applications().stream()
            .flatMap(owner -> owner.placement().made().stays().stream())
            .collect(Collectors.toSet());
    return left.stream().filter(path -> !standing.contains(path)).toList();
  }

  /** Takes away what the server wrote of this delivery, before it writes of what was before. */
  void clearMarks() {
    Stream.of(journal.opened().placement(), journal.opened().earlier())
        .filter(Objects::nonNull)
        .flatMap(placement -> placement.made().marks().stream())
        .distinct()
        .forEach(site.files()::deleteTree);
  }

  /** Takes them away. */
  void clear() {
    paths().forEach(site.files()::deleteTree);
  }
}
