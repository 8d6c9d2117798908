package jollycrate.step;

import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Facts;
import jollycrate.host.HostFiles;

/**
 * A file at one moment.
 *
 * @param digest SHA-256 of its content; for a folder, a link or anything else a word that says so
 */
public record State(String digest, Access access) {

  /** What stands at a path now; empty when nothing does. */
  public static Optional<State> of(HostFiles files, Path path) {
    Facts facts = files.facts(path);
    if (!facts.exists()) {
      return Optional.empty();
    }
    String content =
        facts.isFile() ? files.digest(path) : "a " + facts.type().name().toLowerCase(Locale.ROOT);
    return Optional.of(new State(content, facts.access()));
  }
}
