package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.server.Keys;
import jollycrate.server.Standing;
import jollycrate.stock.Space;
import jollycrate.watch.Site;

/** Finds what an application wrote into the server's folder: never deleted, always named. */
final class Remains {
  private Remains() {}

  /**
   * Data left in the server's folder.
   *
   * @param standing what other applications own
   */
  static List<Space> of(Site site, Standing.Owner owner, Standing standing) {
    Set<String> known = new HashSet<>(owner.found());
    known.addAll(site.traits().folders().own());
    known.addAll(site.traits().folders().leftOut());
    known.add(site.server().records().getFileName().toString());
    standing.pieces().keySet().stream()
        .map(key -> site.server().folder().relativize(Keys.path(site.server(), key)))
        .forEach(path -> known.add(path.getName(0).toString()));
    List<Path> left =
        new ArrayList<>(
            site.files().list(site.server().folder()).stream()
                .filter(path -> !known.contains(path.getFileName().toString()))
                .toList());
    left.addAll(besidesOurs(site, owner, standing));
    return left.stream().map(path -> Space.of(site.files(), site.server(), path)).toList();
  }

  /** What stands in folders where only we put something. */
  private static List<Path> besidesOurs(Site site, Standing.Owner owner, Standing standing) {
    Set<Path> ours = new HashSet<>();
    standing.pieces().keySet().forEach(key -> ours.add(Keys.path(site.server(), key)));
    Set<Path> folders = new TreeSet<>();
    owner
        .pieces()
        .forEach(
            (key, held) -> {
              Path path = Keys.path(site.server(), key);
              boolean onlyOurs =
                  site.traits().folders().own().contains(first(site, path))
                      && !site.traits().hosts();
              if (onlyOurs && !held.digest().equals(Standing.FOLDER)) {
                folders.add(path.getParent());
              }
            });
    return folders.stream()
        .flatMap(folder -> site.files().list(folder).stream())
        .filter(path -> !ours.contains(path))
        .toList();
  }

  private static String first(Site site, Path path) {
    return path.startsWith(site.server().folder())
        ? site.server().folder().relativize(path).getName(0).toString()
        : "";
  }
}
