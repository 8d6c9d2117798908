package jollycrate.hosting;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;

/**
 * A file of an installation that tells its version.
 *
 * @param file from the installation on
 * @param version finds it, as its first group
 * @param supported the versions that a kind supports
 */
public record VersionFile(Path file, Pattern version, Pattern supported)
    implements InstalledVersion {
  private static final int LONGEST = 1 << 16;

  @Override
  public Glance glance(Path installation) {
    return new Glance().wholes(List.of(installation.resolve(file)), LONGEST);
  }

  @Override
  public Optional<String> any(HostFiles files, Path installation) {
    Path told = installation.resolve(file);
    if (!files.facts(told).isFile()) {
      return Optional.empty();
    }
    Matcher found = version.matcher(new String(files.whole(told, LONGEST), StandardCharsets.UTF_8));
    return found.find() ? Optional.of(found.group(1)) : Optional.empty();
  }
}
