package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;

/**
 * What is true of every server of a kind and version.
 *
 * @param label how people call it, with its version
 * @param takes what can be delivered to it
 * @param namespace the servlet API it offers; NONE when it offers none, BOTH when it serves
 *     applications of either
 * @param leastJava oldest Java it runs on
 * @param folders what stands in a server's folder
 * @param brings packages of its own, and of APIs beyond servlets, that applications may use, like
 *     {@code org.apache.catalina.}
 * @param features what it has besides
 */
public record Traits(
    String label,
    Set<ArtifactKind> takes,
    ServletNamespace namespace,
    int leastJava,
    Set<Swap> swaps,
    Folders folders,
    Set<String> brings,
    Set<Feature> features) {
  /**
   * What stands in a server's folder.
   *
   * @param leftOut top-level folders that no comparison looks into: logs, temporary and work files
   * @param own further top-level names that belong to the server itself
   * @param log relative to the server's folder
   */
  public record Folders(List<String> leftOut, List<String> own, Path log) {}

  /** Whether applications find a class, or the classes of a package, on the server. */
  public boolean brings(String name) {
    return brings.stream().anyMatch(name::startsWith);
  }

  /** Whether one process hosts every application. */
  public boolean hosts() {
    return features.contains(Feature.HOSTS);
  }

  /**
   * Whether an archive can be delivered there, as far as itself, the servlet API and the classes
   * that its descriptors name go.
   */
  public boolean suit(Artifact artifact) {
    ServletNamespace uses = artifact.web().namespace();
    boolean speaks =
        namespace == ServletNamespace.NONE
            || namespace == ServletNamespace.BOTH
            || (uses == ServletNamespace.NONE || uses == ServletNamespace.BOTH || uses == namespace)
                && artifact.web().servlets().startedWithout(namespace).isEmpty();
    boolean starts =
        !hosts() || artifact.classes().absent().keySet().stream().allMatch(this::brings);
    return takes.contains(artifact.kind()) && speaks && starts;
  }
}
