package jollycrate;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;

/**
 * A finished file to be delivered.
 *
 * @param undescribed whether a {@code jolly.toml} that stands there is not asked
 * @param path context path of a file that nothing describes; empty: by the server's own rule
 * @param startsWithin longest time that such a file may take to start; empty: what is usual
 */
public record FinishedArtifact(
    Path file, boolean undescribed, Optional<String> path, Optional<Duration> startsWithin) {}
