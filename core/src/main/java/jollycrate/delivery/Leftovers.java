package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.journal.Journal;
import jollycrate.server.Placement;
import jollycrate.watch.Site;

/** What a server made for a release that is taken back, and leaves behind when that is gone. */
record Leftovers(Site site, Journal journal) {

  /** Those that belong to nothing that stands. */
  List<Path> paths() {
    Optional<Placement> placement = Optional.ofNullable(journal.opened().placement());
    if (placement.map(Placement::leftovers).orElse(List.of()).isEmpty()) {
      return List.of();
    }
    Set<Path> standing =
        site.stockTaker().standing().applications().stream()
            .flatMap(owner -> owner.placement().leftovers().stream())
            .collect(Collectors.toSet());
    return placement.get().leftovers().stream().filter(path -> !standing.contains(path)).toList();
  }

  /** Takes them away. */
  void clear() {
    paths().forEach(site.files()::deleteTree);
  }
}
