package jollycrate.app;

import java.nio.file.Path;
import java.util.List;

/**
 * The {@code [pack]} table: what becomes the artifact.
 *
 * @param libs patterns of archives, relative to the file they stand in
 * @param target the artifact that {@code jolly pack} writes
 */
public record PackDescription(
    List<Path> classes, List<Path> web, List<Path> libs, List<String> leaveOut, Path target) {}
