package jollycrate.app;

import java.time.Duration;
import java.util.Optional;

/**
 * Where an application answers.
 *
 * @param path context path; empty: the server's own rule for the artifact's file name
 * @param startsWithin how long it may take until the server says it is up
 */
public record Context(Optional<String> path, Duration startsWithin) {
  /** How long an application may take to start when nothing is said. */
  public static final Duration STARTS_WITHIN = Duration.ofSeconds(60);
}
