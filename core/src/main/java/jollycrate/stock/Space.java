package jollycrate.stock;

import java.nio.file.Path;
import jollycrate.host.Facts;
import jollycrate.host.HostFiles;
import jollycrate.server.Server;

/**
 * A path with what it takes up.
 *
 * @param path as people read it, a folder with a slash behind it
 * @param size of every file in it, in bytes
 */
public record Space(String path, long size) {

  /** Of a path of a server. */
  public static Space of(HostFiles files, Server server, Path path) {
    Facts facts = files.facts(path);
    return new Space(server.shown(path) + (facts.isFolder() ? "/" : ""), size(files, facts));
  }

  private static long size(HostFiles files, Facts facts) {
    return facts.isFolder()
        ? files.facts(files.list(facts.path())).stream()
            .mapToLong(inner -> size(files, inner))
            .sum()
        : facts.size();
  }
}
