package jollycrate.server;

import java.nio.file.Path;

/**
 * A place in a log.
 *
 * @param offset in bytes
 */
public record LogPlace(Path file, long offset) {}
