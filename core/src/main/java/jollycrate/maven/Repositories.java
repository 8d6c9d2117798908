package jollycrate.maven;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.stream.Stream;
import jollycrate.app.MavenCoordinates;
import org.apache.maven.model.building.ModelBuilder;
import org.apache.maven.model.io.xpp3.MavenXpp3Reader;
import org.apache.maven.repository.internal.ArtifactDescriptorUtils;
import org.apache.maven.settings.Repository;
import org.apache.maven.settings.RepositoryPolicy;
import org.codehaus.plexus.util.xml.pull.XmlPullParserException;
import org.eclipse.aether.DefaultRepositorySystemSession;
import org.eclipse.aether.RepositorySystem;
import org.eclipse.aether.artifact.Artifact;
import org.eclipse.aether.artifact.DefaultArtifact;
import org.eclipse.aether.repository.RemoteRepository;
import org.eclipse.aether.resolution.ArtifactRequest;
import org.eclipse.aether.resolution.ArtifactResolutionException;
import org.eclipse.aether.supplier.RepositorySystemSupplier;

/**
 * The repositories that the user's Maven asks, with his mirrors, proxies and credentials. What does
 * not have the checksum that its repository says is refused.
 */
public final class Repositories {
  private static final String CENTRAL = "central";

  /** The model that every project inherits; it names the repository that Maven asks by itself. */
  private static final String SUPER_POM = "/org/apache/maven/model/pom-4.0.0.xml";

  final MavenSettings settings;
  final RepositorySystem system;
  final DefaultRepositorySystemSession session;
  final List<RemoteRepository> remote;

  private Repositories(MavenSettings settings, Map<String, String> variables, Fetching fetching) {
    this.settings = settings;
    this.system = new RepositorySystemSupplier().get();
    this.session = SessionOfSettings.of(settings, system, variables, fetching);
    this.remote = system.newResolutionRepositories(session, described());
  }

  /**
   * Those of a folder.
   *
   * @param folder of the project; one without a project will do
   * @param doing is told what is fetched
   * @param stopped whether somebody wants it to stop
   * @throws MavenException when the settings cannot be read
   */
  public static Repositories of(Path folder, Consumer<String> doing, BooleanSupplier stopped) {
    return of(folder, home(), System.getenv(), new Fetching(doing, stopped));
  }

  static Repositories of(Path folder, Path home, Map<String, String> variables, Fetching fetching) {
    return new Repositories(MavenSettings.of(folder, home, variables), variables, fetching);
  }

  private List<RemoteRepository> described() {
    List<RemoteRepository> described = new ArrayList<>();
    settings.profiles().stream()
        .flatMap(profile -> profile.getRepositories().stream())
        .map(Repositories::remote)
        .forEach(described::add);
    if (described.stream().noneMatch(repository -> repository.getId().equals(CENTRAL))) {
      inherited().forEach(described::add);
    }
    return described;
  }

  private static Stream<RemoteRepository> inherited() {
    try (InputStream in = ModelBuilder.class.getResourceAsStream(SUPER_POM)) {
      return new MavenXpp3Reader()
          .read(in).getRepositories().stream()
              .map(ArtifactDescriptorUtils::toRemoteRepository)
              .map(
                  repository ->
                      new RemoteRepository.Builder(repository)
                          .setReleasePolicy(policy(null))
                          .build());
    } catch (IOException | XmlPullParserException e) {
      throw new IllegalStateException(SUPER_POM + " is in Maven's own archive", e);
    }
  }

  private static RemoteRepository remote(Repository written) {
    return new RemoteRepository.Builder(written.getId(), "default", written.getUrl())
        .setReleasePolicy(policy(written.getReleases()))
        .setSnapshotPolicy(policy(written.getSnapshots()))
        .build();
  }

  private static org.eclipse.aether.repository.RepositoryPolicy policy(RepositoryPolicy written) {
    String checksum = written == null ? null : written.getChecksumPolicy();
    return new org.eclipse.aether.repository.RepositoryPolicy(
        written == null || written.isEnabled(),
        org.eclipse.aether.repository.RepositoryPolicy.UPDATE_POLICY_ALWAYS,
        checksum == null
            ? org.eclipse.aether.repository.RepositoryPolicy.CHECKSUM_POLICY_FAIL
            : checksum);
  }

  /**
   * Whether only Maven itself knows a project: extensions change what it does, or profiles are
   * chosen by name.
   */
  public boolean needMaven() {
    return settings.options().extended() || settings.choosesProfiles();
  }

  /** Digest of all that says which repositories are asked in a folder, and how. */
  public static String setup(Path folder) {
    return MavenSettings.SettingsFiles.of(folder, home(), System.getenv()).digest();
  }

  private static Path home() {
    return Path.of(System.getProperty("user.home"));
  }

  /**
   * A file, from the local repository or fetched into it.
   *
   * @param coordinates with a version
   * @throws MavenException when it cannot be had
   */
  public Path file(MavenCoordinates coordinates) {
    return file(
        new DefaultArtifact(
            coordinates.group(),
            coordinates.artifact(),
            coordinates.classifier(),
            coordinates.type(),
            coordinates.version().orElseThrow()),
        remote,
        coordinates.toString());
  }

  Path file(Artifact artifact, List<RemoteRepository> from, String called) {
    try {
      return system
          .resolveArtifact(session, new ArtifactRequest(artifact, from, ""))
          .getArtifact()
          .getFile()
          .toPath();
    } catch (ArtifactResolutionException e) {
      throw failure(called, e, from);
    }
  }

  MavenException failure(String called, Exception e, List<RemoteRepository> asked) {
    return new NotResolved(settings, asked).failure(called, e);
  }

  /** Those of the settings, and others that a project names. */
  List<RemoteRepository> with(List<RemoteRepository> ofProject) {
    List<String> known = remote.stream().map(RemoteRepository::getId).toList();
    List<RemoteRepository> others =
        ofProject.stream().filter(repository -> !known.contains(repository.getId())).toList();
    return Stream.concat(
            remote.stream(), system.newResolutionRepositories(session, others).stream())
        .toList();
  }
}
