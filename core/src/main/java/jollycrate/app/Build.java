package jollycrate.app;

import java.nio.file.Path;
import java.util.List;

/**
 * The {@code [build]} table: how the project makes what is packed.
 *
 * @param run a command as an argument list, run in the folder of {@code jolly.toml}
 * @param sources files and folders that it reads
 * @param makes files and folders that it writes
 */
public record Build(List<String> run, List<Path> sources, List<Path> makes) {}
