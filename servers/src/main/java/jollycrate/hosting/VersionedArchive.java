package jollycrate.hosting;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;

/**
 * An archive of an installation whose name tells its version.
 *
 * @param folder from the installation on
 * @param name of the archive, with the version as its first group
 * @param handled the versions that a kind knows how to handle
 */
public record VersionedArchive(Path folder, Pattern name, Pattern handled) {
  /** What {@link #in} is going to read. */
  public Glance glance(Path installation) {
    return new Glance().lists(List.of(installation.resolve(folder)));
  }

  /** The version; empty where no such archive is there, or one of a version not handled. */
  public Optional<String> in(HostFiles files, Path installation) {
    return any(files, installation).filter(found -> handled.matcher(found).matches());
  }

  /** The version where it is one that is not handled. */
  public Optional<String> other(HostFiles files, Path installation) {
    return any(files, installation).filter(found -> !handled.matcher(found).matches());
  }

  private Optional<String> any(HostFiles files, Path installation) {
    return files.list(installation.resolve(folder)).stream()
        .map(file -> name.matcher(file.getFileName().toString()))
        .filter(Matcher::matches)
        .map(found -> found.group(1))
        .findFirst();
  }
}
