package jollycrate.server;

import java.nio.file.Path;
import java.util.List;

/**
 * What taking stock reads for a kind.
 *
 * @param texts files read whole, when they stand there
 * @param folders folders whose children are listed
 */
public record Reads(List<Path> texts, List<Path> folders) {}
