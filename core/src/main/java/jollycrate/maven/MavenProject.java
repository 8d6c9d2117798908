package jollycrate.maven;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.app.MavenCoordinates;
import org.eclipse.aether.DefaultRepositorySystemSession;
import org.eclipse.aether.artifact.Artifact;
import org.eclipse.aether.artifact.DefaultArtifact;
import org.eclipse.aether.collection.CollectRequest;
import org.eclipse.aether.collection.DependencyCollectionException;
import org.eclipse.aether.graph.Dependency;
import org.eclipse.aether.graph.DependencyNode;
import org.eclipse.aether.repository.RemoteRepository;
import org.eclipse.aether.repository.WorkspaceReader;
import org.eclipse.aether.repository.WorkspaceRepository;
import org.eclipse.aether.resolution.ArtifactDescriptorException;
import org.eclipse.aether.resolution.ArtifactDescriptorRequest;
import org.eclipse.aether.resolution.ArtifactDescriptorResult;
import org.eclipse.aether.util.artifact.JavaScopes;
import org.eclipse.aether.util.graph.visitor.PreorderNodeListGenerator;
import org.eclipse.aether.util.repository.SimpleArtifactDescriptorPolicy;

/** A Maven project, as far as its {@code pom.xml} says which libraries it has. */
public final class MavenProject {
  private static final Set<String> RUN_TIME = Set.of(JavaScopes.COMPILE, JavaScopes.RUNTIME);

  /** What the project is called while its model is read: whatever it calls itself is there. */
  private static final Artifact ITSELF = new DefaultArtifact("project", "project", "pom", "0");

  private final Repositories repositories;
  private final Path pom;
  private final ArtifactDescriptorResult model;
  private final List<RemoteRepository> from;

  /**
   * With its effective model, parents and imports included.
   *
   * @throws MavenException when the model cannot be made
   */
  public MavenProject(Repositories repositories, Path pom) {
    this.repositories = repositories;
    this.pom = pom;
    DefaultRepositorySystemSession session =
        new DefaultRepositorySystemSession(repositories.session);
    session.setArtifactDescriptorPolicy(new SimpleArtifactDescriptorPolicy(false, false));
    session.setWorkspaceReader(new ThisProject(pom.toFile()));
    try {
      this.model =
          repositories.system.readArtifactDescriptor(
              session, new ArtifactDescriptorRequest(ITSELF, repositories.remote, ""));
    } catch (ArtifactDescriptorException e) {
      throw repositories.failure(pom.toString(), e, repositories.remote);
    }
    this.from = repositories.with(model.getRepositories());
  }

  /** The archives that it needs at run time, those of libraries included. */
  public List<Path> ofRunTime() {
    return nodes(RUN_TIME)
        .map(node -> repositories.file(node.getArtifact(), from, node.getArtifact().toString()))
        .toList();
  }

  /**
   * The archive of a library of whatever scope, its own or a library's, or one whose version it
   * only manages.
   */
  public Optional<Path> library(MavenCoordinates named) {
    return Stream.concat(model.getDependencies().stream(), model.getManagedDependencies().stream())
        .map(Dependency::getArtifact)
        .filter(artifact -> isNamed(named, artifact))
        .findFirst()
        .or(
            () ->
                nodes(Set.of())
                    .map(DependencyNode::getArtifact)
                    .filter(artifact -> isNamed(named, artifact))
                    .findFirst())
        .map(artifact -> repositories.file(artifact, from, named.toString()));
  }

  private static boolean isNamed(MavenCoordinates named, Artifact artifact) {
    return artifact.getGroupId().equals(named.group())
        && artifact.getArtifactId().equals(named.artifact())
        && artifact.getExtension().equals(named.type())
        && artifact.getClassifier().equals(named.classifier());
  }

  /**
   * Archives in the order of a class path; of all scopes where none is named. Libraries of tests
   * have a say in versions, as with Maven.
   */
  private Stream<DependencyNode> nodes(Set<String> scopes) {
    CollectRequest request =
        new CollectRequest(model.getDependencies(), model.getManagedDependencies(), from);
    try {
      PreorderNodeListGenerator order = new PreorderNodeListGenerator();
      repositories
          .system
          .collectDependencies(repositories.session, request)
          .getRoot()
          .accept(order);
      return order.getNodes().stream()
          .filter(node -> node.getDependency() != null)
          .filter(node -> scopes.isEmpty() || scopes.contains(node.getDependency().getScope()))
          .filter(node -> node.getArtifact().getExtension().equals("jar"));
    } catch (DependencyCollectionException e) {
      throw repositories.failure("the libraries of " + pom, e, from);
    }
  }

  /** Gives the project's own file. */
  private record ThisProject(File pom) implements WorkspaceReader {
    @Override
    public WorkspaceRepository getRepository() {
      return new WorkspaceRepository("project");
    }

    @Override
    public File findArtifact(Artifact artifact) {
      boolean itself =
          artifact.getGroupId().equals(ITSELF.getGroupId())
              && artifact.getArtifactId().equals(ITSELF.getArtifactId());
      return itself ? pom : null;
    }

    @Override
    public List<String> findVersions(Artifact artifact) {
      return List.of();
    }
  }
}
