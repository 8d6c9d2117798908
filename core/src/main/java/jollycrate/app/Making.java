package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * How the artifact of an application comes about: finished, or packed from what a project builds.
 *
 * @param packs what it is packed as; empty for a finished artifact
 * @param delivered name among {@code packs} of the one that goes to servers, when that is clear
 * @param build how the project makes what is packed
 * @param settings values for the pages of a front end, or for the settings file of a program
 * @param artifact a finished artifact, in place of {@code packs}
 */
public record Making(
    List<PackDescription> packs,
    Optional<String> delivered,
    Optional<Build> build,
    Map<String, JsonNode> settings,
    Optional<Path> artifact) {
  /** Nothing is made: the artifact is there. */
  public static Making finished(Path artifact, Map<String, JsonNode> settings) {
    return new Making(
        List.of(), Optional.empty(), Optional.empty(), settings, Optional.of(artifact));
  }

  /** What is packed under a name. */
  public Optional<PackDescription> pack(String name) {
    return packs.stream().filter(pack -> pack.name().equals(name)).findFirst();
  }
}
