package jollycrate.hosting;

import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;

/** Where an installation says its version, and which versions a kind supports. */
public sealed interface InstalledVersion permits VersionFile, VersionedArchive {
  /** The versions that the kind supports. */
  Pattern supported();

  /** What is going to be read. */
  Glance glance(Path installation);

  /** The version, supported or not; empty where the installation is none of this family. */
  Optional<String> any(HostFiles files, Path installation);

  /** The version, where it is supported. */
  default Optional<String> in(HostFiles files, Path installation) {
    return any(files, installation).filter(found -> supported().matcher(found).matches());
  }

  /** The version, where it is not supported. */
  default Optional<String> unsupported(HostFiles files, Path installation) {
    return any(files, installation).filter(found -> !supported().matcher(found).matches());
  }
}
