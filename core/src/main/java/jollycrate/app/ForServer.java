package jollycrate.app;

import java.nio.file.Path;
import java.util.Optional;

/**
 * For which server an application is described: its own values override the common ones.
 *
 * @param server its name
 * @param file that describes the servers, in which further values may stand beside it
 */
public record ForServer(String server, Optional<Path> file) {}
