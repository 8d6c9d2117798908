package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.json.MayLack;

/**
 * Where an application answers, and what it finds there.
 *
 * @param path context path; empty: the server's own rule for the artifact's file name
 * @param host virtual host; empty: whatever name it is asked by
 * @param startsWithin how long it may take until the server says it is up
 * @param entries its environment entries
 */
public record Context(
    Optional<String> path,
    @MayLack Optional<String> host,
    Duration startsWithin,
    List<EnvEntry> entries) {
  /** How long an application may take to start when nothing is said. */
  public static final Duration STARTS_WITHIN = Duration.ofSeconds(60);

  /** The same at another path. */
  Context at(String other) {
    return new Context(Optional.of(other), host, startsWithin, entries);
  }

  /** The same whose secrets are looked for from another folder on. */
  Context from(Path folder) {
    return new Context(
        path, host, startsWithin, entries.stream().map(entry -> entry.from(folder)).toList());
  }
}
