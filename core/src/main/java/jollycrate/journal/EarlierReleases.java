package jollycrate.journal;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Keeping;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.HostFiles;
import jollycrate.json.Json;
import jollycrate.server.Standing;

/**
 * The last releases of a server's applications: a document for each delivery, and under its digest
 * each file that no longer stands where it was delivered to.
 */
public final class EarlierReleases {
  private static final int MOST_BYTES = 8 << 20;
  private static final String ENDING = ".json";

  private final HostFiles files;
  private final Path folder;

  /** Kept in that folder. */
  public EarlierReleases(HostFiles files, Path folder) {
    this.files = files;
    this.folder = folder;
  }

  /** All that can be read, the oldest first. */
  public List<EarlierRelease> all() {
    return kept().all();
  }

  /**
   * What is kept.
   *
   * @param paths everything that stands there
   * @param all the releases whose documents can be read, the oldest first
   * @param whole whether every document can
   */
  private record Kept(List<Path> paths, List<EarlierRelease> all, boolean whole) {}

  private Kept kept() {
    List<Path> paths = files.list(folder);
    List<Path> documents = paths.stream().filter(path -> path.toString().endsWith(ENDING)).toList();
    List<Path> readable =
        files.facts(documents).stream()
            .filter(facts -> facts.isFile() && facts.size() <= MOST_BYTES)
            .map(Facts::path)
            .toList();
    List<EarlierRelease> all =
        files.wholes(readable, MOST_BYTES).values().stream()
            .flatMap(bytes -> KeptForm.read(bytes).stream())
            .sorted(Comparator.comparingInt(EarlierRelease::delivery))
            .toList();
    return new Kept(paths, all, all.size() == documents.size());
  }

  /** The release of a delivery; empty when none is kept, or what is kept cannot be read. */
  public Optional<EarlierRelease> of(int delivery) {
    byte[] bytes = files.read(document(delivery), 0, MOST_BYTES);
    return KeptForm.read(bytes);
  }

  private Path document(int delivery) {
    return folder.resolve(delivery + ENDING);
  }

  /** Where a file stands that is kept. */
  public Path file(String digest) {
    return folder.resolve(digest);
  }

  /** Digests of every file that a kept release is made of. */
  public Set<String> wanted() {
    Set<String> wanted = new HashSet<>();
    all().forEach(release -> release.files().forEach(file -> wanted.add(file.digest())));
    return wanted;
  }

  /**
   * Keeps a release whose files stand on the server.
   *
   * @param access of the server's folder
   * @param standing digests of what it will have there; what is not among them is kept here
   */
  public void add(EarlierRelease release, Access access, Collection<String> standing) {
    if (!files.facts(folder).exists()) {
      files.makeFolder(folder, access.with("rwx------"));
    }
    Access own = access.with("rw-------");
    for (EarlierRelease.Original file : release.files()) {
      Path kept = file(file.digest());
      if (!standing.contains(file.digest()) && !files.facts(kept).exists()) {
        files.put(kept, Content.of(file.path(), file.digest(), file.size()), own);
      }
    }
    files.put(document(release.delivery()), Content.of(Json.line(release)), own);
  }

  /** Forgets the release of a delivery that was taken back. */
  public void forget(int delivery, Standing standing) {
    files.delete(HostFiles.beside(document(delivery)));
    files.delete(document(delivery));
    Kept kept = kept();
    dropFiles(kept, kept.all(), standing);
  }

  /** Drops what is more than should be kept, the oldest first; never what stands. */
  public void prune(Keeping limits, Standing standing) {
    Kept kept = kept();
    List<EarlierRelease> left = withinNumber(kept.all(), limits.releases(), standing);
    boolean fits = space(left, standing) <= limits.space();
    while (!fits) {
      fits = !dropOldest(left, standing) || space(left, standing) <= limits.space();
    }
    for (EarlierRelease release : kept.all()) {
      if (!left.contains(release)) {
        files.delete(document(release.delivery()));
      }
    }
    dropFiles(kept, left, standing);
  }

  private List<EarlierRelease> withinNumber(List<EarlierRelease> all, int most, Standing standing) {
    List<EarlierRelease> left = new ArrayList<>();
    Map<String, Integer> earlier = new HashMap<>();
    for (int i = all.size() - 1; i >= 0; i--) {
      EarlierRelease release = all.get(i);
      boolean again = all.stream().anyMatch(other -> isAlikeAndBetter(other, release));
      boolean alsoStands =
          all.stream().anyMatch(other -> stands(other, standing) && other.isAlike(release));
      boolean kept =
          !again && (alsoStands || earlier.merge(release.application(), 1, Integer::sum) <= most);
      if (stands(release, standing) || kept) {
        left.add(0, release);
      }
    }
    return left;
  }

  /** Of several that are alike, the last one counts that was new and not brought back. */
  private static boolean isAlikeAndBetter(EarlierRelease one, EarlierRelease other) {
    boolean isNew = one.restores() == 0;
    boolean sameSort = isNew == (other.restores() == 0);
    return one.isAlike(other) && (sameSort ? one.delivery() > other.delivery() : isNew);
  }

  private static boolean stands(EarlierRelease release, Standing standing) {
    return standing
        .owner(release.application())
        .filter(owner -> owner.delivery() == release.delivery())
        .isPresent();
  }

  private static boolean dropOldest(List<EarlierRelease> left, Standing standing) {
    Optional<EarlierRelease> oldest =
        left.stream().filter(release -> !stands(release, standing)).findFirst();
    oldest.ifPresent(left::remove);
    return oldest.isPresent();
  }

  private static long space(List<EarlierRelease> releases, Standing standing) {
    Set<String> there = digests(standing);
    Map<String, Long> sizes = new HashMap<>();
    releases.stream()
        .flatMap(release -> release.files().stream())
        .filter(file -> !there.contains(file.digest()))
        .forEach(file -> sizes.put(file.digest(), file.size()));
    return sizes.values().stream().mapToLong(Long::longValue).sum();
  }

  private static Set<String> digests(Standing standing) {
    Set<String> digests = new HashSet<>();
    standing.pieces().values().forEach(held -> digests.add(held.digest()));
    return digests;
  }

  /** While a document cannot be read, whose files are whose is unknown, and all of them stay. */
  private void dropFiles(Kept kept, List<EarlierRelease> releases, Standing standing) {
    Set<String> there = digests(standing);
    for (Path path : kept.whole() ? kept.paths() : List.<Path>of()) {
      String name = path.getFileName().toString();
      boolean held = releases.stream().anyMatch(release -> release.holds(name));
      if (!name.endsWith(ENDING) && (!held || there.contains(name))) {
        files.delete(path);
      }
    }
  }
}
