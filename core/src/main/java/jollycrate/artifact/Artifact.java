package jollycrate.artifact;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.SortedSet;

/**
 * What an archive tells about itself.
 *
 * @param size in bytes
 * @param entries number of files inside, folders not counted
 * @param digest SHA-256 of the whole file
 * @param name from the manifest, else from the file's name
 * @param version from the manifest, else from the file's name, else empty
 * @param highestLevel highest class-file major version that the servlet container would load; 0
 *     without classes
 * @param highestClass the entry that has it; empty without classes
 * @param mainClass {@code Main-Class} of the manifest
 * @param dataSources JNDI names of data sources it declares, below {@code java:comp/env/}
 * @param roles security roles it declares
 * @param ownPackages packages of its own classes, as in stack traces
 * @param contextXml its {@code META-INF/context.xml}, empty when there is none
 * @param faults what is wrong inside, each with its place
 */
public record Artifact(
    Path file,
    ArtifactKind kind,
    long size,
    int entries,
    String digest,
    String name,
    String version,
    int highestLevel,
    String highestClass,
    ServletNamespace namespace,
    Optional<String> mainClass,
    List<Declared> dataSources,
    SortedSet<String> roles,
    SortedSet<String> ownPackages,
    Optional<String> contextXml,
    List<String> faults) {

  /**
   * A name that the artifact declares.
   *
   * @param where entry, with line when it is a descriptor
   */
  public record Declared(String name, String where) {}

  /** The oldest Java that runs every class of it; 0 without classes. */
  public int java() {
    return highestLevel == 0 ? 0 : JavaLevel.javaOf(highestLevel);
  }
}
