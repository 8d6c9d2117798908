package jollycrate.pack;

import java.io.Closeable;
import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The libraries of a project, each in one version. */
final class Libraries implements Closeable {
  private final List<Library> all = new ArrayList<>();
  private final List<PathMatcher> kept;

  /**
   * Opens them.
   *
   * @param kept patterns over file names of those that count as the project's own whatever they
   *     hold
   * @throws PackException when one cannot be read or stands there in two versions
   */
  static Libraries open(List<Path> files, List<String> kept) throws IOException {
    Libraries libraries = new Libraries(kept);
    try {
      for (Path file : files) {
        libraries.all.add(Library.open(file));
      }
      libraries.eachInOneVersion();
      return libraries;
    } catch (PackException e) {
      libraries.close();
      throw e;
    }
  }

  private Libraries(List<String> kept) {
    this.kept =
        kept.stream()
            .map(pattern -> FileSystems.getDefault().getPathMatcher("glob:" + pattern))
            .toList();
  }

  private void eachInOneVersion() {
    Map<String, Library> byId = new HashMap<>();
    for (Library library : all) {
      Library.Coordinates coordinates = library.coordinates();
      Library other = byId.putIfAbsent(coordinates.id(), library);
      if (other != null && !other.coordinates().version().equals(coordinates.version())) {
        throw new PackException(
            "Cannot pack '"
                + other.file()
                + "' and '"
                + library.file()
                + "': both are "
                + coordinates.id()
                + ", in versions "
                + other.coordinates().version()
                + " and "
                + coordinates.version()
                + ". Keep one of them in 'libs'");
      }
    }
  }

  List<Library> all() {
    return all;
  }

  /** Those that go in everywhere. */
  List<Library> own() {
    return all.stream().filter(library -> reasonOutside(library).isEmpty()).toList();
  }

  /** Those that a standalone server brings or that clash with it. */
  List<Library> ofServers() {
    return all.stream().filter(library -> !reasonOutside(library).isEmpty()).toList();
  }

  /** Why a standalone server does not want a library; empty when it does. */
  String reasonOutside(Library library) {
    Path name = library.file().getFileName();
    return kept.stream().anyMatch(pattern -> pattern.matches(name))
        ? ""
        : ServerParts.reason(library);
  }

  @Override
  public void close() throws IOException {
    for (Library library : all) {
      library.close();
    }
  }
}
