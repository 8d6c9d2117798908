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
 * @param supported the versions that a kind supports
 */
public record VersionedArchive(Path folder, Pattern name, Pattern supported)
    implements InstalledVersion {
  @Override
  public Glance glance(Path installation) {
    return new Glance().lists(List.of(installation.resolve(folder)));
  }

  @Override
  public Optional<String> any(HostFiles files, Path installation) {
    return files.list(installation.resolve(folder)).stream()
        .map(file -> name.matcher(file.getFileName().toString()))
        .filter(Matcher::matches)
        .map(found -> found.group(1))
        .findFirst();
  }
}
