package jollycrate.step;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Facts;
import jollycrate.host.HostFiles;

/** A file at one moment. */
public record State(String digest, Access access) {

  /** The file that stands at a path now; empty when none does. */
  public static Optional<State> of(HostFiles files, Path path) {
    Facts facts = files.facts(path);
    return facts.isFile()
        ? Optional.of(new State(files.digest(path), facts.access()))
        : Optional.empty();
  }
}
