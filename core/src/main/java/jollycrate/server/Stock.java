package jollycrate.server;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.host.Access;
import jollycrate.host.Facts;
import jollycrate.host.Listening;

/**
 * What stands on a server now.
 *
 * @param owned what belongs to whom it runs as
 * @param facts of every path that was looked at
 * @param digests of every file of ours that stands there
 * @param texts content of the files that the kind reads
 * @param children of the folders that the kind lists
 * @param listening who listens on its ports, by port
 * @param ownPorts those on which its own processes do
 * @param javaFeature feature release of its Java
 */
public record Stock(
    Server server,
    Path owned,
    Map<Path, Facts> facts,
    Map<Path, String> digests,
    Map<Path, byte[]> texts,
    Map<Path, List<Path>> children,
    Presence process,
    Map<Integer, Listening> listening,
    Set<Integer> ownPorts,
    Standing standing,
    int javaFeature) {

  /** Facts of a path that was looked at. */
  public Facts at(Path path) {
    return facts.getOrDefault(path, Facts.absent(path));
  }

  /** Text of a file that was read, in UTF-8. */
  public Optional<String> text(Path path) {
    return Optional.ofNullable(texts.get(path))
        .map(bytes -> new String(bytes, StandardCharsets.UTF_8));
  }

  /** Whoever else listens on a port of the server; who is not known may be the server itself. */
  public Optional<Listening> stranger(int port) {
    return Optional.ofNullable(listening.get(port))
        .filter(found -> !ownPorts.contains(port))
        .filter(found -> found.pid() > 0 || process.isStopped());
  }

  /** Owner and group that files of the server have. */
  public Access access() {
    return at(owned).access();
  }
}
