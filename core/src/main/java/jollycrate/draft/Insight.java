package jollycrate.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactException;
import jollycrate.artifact.ArtifactReader;
import jollycrate.file.Trees;
import jollycrate.pack.PackException;
import jollycrate.pack.PackRequest;
import jollycrate.pack.Packer;
import jollycrate.pack.Shape;

/**
 * What the classes and the descriptor of a project declare, read as if they were packed.
 *
 * @param sure paths that are sure to answer whoever opens them
 */
record Insight(Artifact artifact, List<Artifact.Endpoint> sure) {

  /** Whether it declares a data source. */
  boolean asksForData() {
    return !artifact.web().dataSources().isEmpty();
  }

  /** Of an archive that was built before. */
  static Optional<Insight> of(Path archive) {
    try {
      Artifact artifact = ArtifactReader.read(archive, false);
      return Optional.of(new Insight(artifact, Endpoints.sure(artifact)));
    } catch (ArtifactException e) {
      return Optional.empty();
    }
  }

  /** Of folders that exist; empty when none does, or nothing can be packed from them. */
  static Optional<Insight> of(List<Path> classes, List<Path> web) {
    List<Path> compiled = classes.stream().filter(Files::isDirectory).toList();
    List<Path> pages = web.stream().filter(Files::isDirectory).toList();
    if (compiled.isEmpty() && pages.isEmpty()) {
      return Optional.empty();
    }
    Path scratch = Trees.temporary();
    try {
      Path war = scratch.resolve("draft.war");
      Packer.pack(
          new PackRequest(
              "draft",
              "0",
              Shape.WAR,
              compiled,
              pages,
              List.of(),
              List.of(),
              Optional.empty(),
              PackRequest.Choice.ALL,
              new TreeMap<>(),
              PackRequest.Pages.PLAIN,
              PackRequest.FIXED_TIME),
          war);
      return of(war);
    } catch (PackException e) {
      return Optional.empty();
    } finally {
      Trees.discard(scratch);
    }
  }

  /** The newest archive in a folder that could be delivered. */
  static Optional<Path> newestArchive(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) {
      return Optional.empty();
    }
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .filter(file -> file.toString().matches(".*(?<!-sources|-javadoc|-tests)\\.(?:war|jar)"))
          .filter(Files::isRegularFile)
          .max(
              Comparator.comparing((Path file) -> file.toString().endsWith(".war"))
                  .thenComparing(file -> file.toFile().lastModified()));
    }
  }
}
