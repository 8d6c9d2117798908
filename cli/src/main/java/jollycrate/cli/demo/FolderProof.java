package jollycrate.cli.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import jollycrate.file.Digests;

/** Every path of a folder with mode, owner and content, taken without the help of our records. */
public final class FolderProof {
  private final TreeMap<String, String> paths;

  private FolderProof(TreeMap<String, String> paths) {
    this.paths = paths;
  }

  /**
   * Looks at a folder.
   *
   * @param leftOut names directly inside that are not looked into
   */
  public static FolderProof of(Path folder, Set<String> leftOut) {
    TreeMap<String, String> paths = new TreeMap<>();
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path path : all.toList()) {
        Path relative = folder.relativize(path);
        if (!leftOut.contains(relative.getName(0).toString())) {
          paths.put(relative.toString(), factsOf(path));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return new FolderProof(paths);
  }

  private static String factsOf(Path path) throws IOException {
    PosixFileAttributes facts =
        Files.readAttributes(path, PosixFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
    String who = PosixFilePermissions.toString(facts.permissions()) + " " + facts.owner();
    return who + " " + (facts.isRegularFile() ? Digests.of(path) : "");
  }

  /** Number of paths. */
  public int size() {
    return paths.size();
  }

  /** Paths that differ from an earlier look. */
  public List<String> differences(FolderProof earlier) {
    Set<String> names = new TreeSet<>(paths.keySet());
    names.addAll(earlier.paths.keySet());
    List<String> different = new ArrayList<>();
    for (String name : names) {
      if (!String.valueOf(paths.get(name)).equals(String.valueOf(earlier.paths.get(name)))) {
        different.add(name);
      }
    }
    return different;
  }
}
