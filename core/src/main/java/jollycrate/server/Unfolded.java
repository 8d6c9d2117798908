package jollycrate.server;

import java.nio.file.Path;

/**
 * An artifact that stands unpacked and is run from there.
 *
 * @param stamp digest of everything inside for which the application must be started anew
 */
public record Unfolded(Path folder, String stamp) {}
