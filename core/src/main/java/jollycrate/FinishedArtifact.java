package jollycrate;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;

/**
 * A file to be delivered that no {@code jolly.toml} describes.
 *
 * @param path context path; empty: by the server's own rule
 * @param startsWithin longest time it may take to start; empty: what is usual
 */
public record FinishedArtifact(Path file, Optional<String> path, Optional<Duration> startsWithin) {}
