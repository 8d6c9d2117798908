package jollycrate.delivery;

import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import jollycrate.host.Facts;
import jollycrate.server.Keys;
import jollycrate.server.Standing;

/** Finds what an application wrote into the server's folder: never deleted, always named. */
final class Remains {
  private Remains() {}

  /**
   * Data left in the server's folder.
   *
   * @param standing what other applications own
   */
  static List<String> of(Site site, Standing.Owner owner, Standing standing) {
    Set<String> known = new HashSet<>(owner.found());
    known.addAll(site.traits().own());
    known.addAll(site.traits().leftOut());
    known.add(site.server().records().getFileName().toString());
    standing.pieces().keySet().stream()
        .map(key -> site.server().folder().relativize(Keys.path(site.server(), key)))
        .forEach(path -> known.add(path.getName(0).toString()));
    return site.files().list(site.server().folder()).stream()
        .filter(path -> !known.contains(path.getFileName().toString()))
        .map(path -> shown(site, path))
        .toList();
  }

  private static String shown(Site site, Path path) {
    Facts facts = site.files().facts(path);
    String slash = facts.isFolder() ? "/" : "";
    return site.server().shown(path) + slash + " (" + size(site, facts) + " bytes)";
  }

  private static long size(Site site, Facts facts) {
    if (!facts.isFolder()) {
      return facts.size();
    }
    return site.files().facts(site.files().list(facts.path())).stream()
        .mapToLong(child -> size(site, child))
        .sum();
  }
}
