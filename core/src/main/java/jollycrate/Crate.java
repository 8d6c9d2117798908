package jollycrate;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import jollycrate.app.Application;
import jollycrate.app.Descriptions;
import jollycrate.app.MavenCoordinates;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackChoice;
import jollycrate.app.PackDescription;
import jollycrate.app.ProblemsException;
import jollycrate.app.ServerEntry;
import jollycrate.app.Setting;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactException;
import jollycrate.artifact.ArtifactReader;
import jollycrate.artifact.Comparison;
import jollycrate.artifact.ZipArchive;
import jollycrate.build.BuildMode;
import jollycrate.build.DescribedFile;
import jollycrate.build.Drivers;
import jollycrate.build.Packing;
import jollycrate.build.ProjectSource;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryService;
import jollycrate.delivery.DescribedHere;
import jollycrate.delivery.Manner;
import jollycrate.delivery.Source;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.file.Trees;
import jollycrate.host.Host;
import jollycrate.pack.PackException;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;
import jollycrate.secret.Secrets;
import jollycrate.server.Traits;
import jollycrate.site.FinishedArtifact;
import jollycrate.trial.InPassing;
import jollycrate.trial.LiveRun;
import jollycrate.trial.ShapeRow;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** What the commands do with an application; with servers, see {@link #servers}. */
public final class Crate implements AutoCloseable {
  private final Means means;
  private final Host host;
  private final Setting setting;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Descriptions descriptions;

  /** With everything that a run of the program shares. */
  public Crate(Setting setting, Secrets secrets, Progress progress, Interrupts interrupts) {
    this.means = Means.of(setting, secrets, progress, interrupts);
    this.host = means.host();
    this.setting = setting;
    this.progress = progress;
    this.interrupts = interrupts;
    this.descriptions = means.descriptions();
  }

  /** Ends what is open to other machines. */
  @Override
  public void close() {
    means.machines().close();
  }

  /**
   * What an archive tells about itself.
   *
   * @param withDigest whether the whole file is digested too
   */
  public Artifact inspect(Path file, boolean withDigest) {
    return ArtifactReader.read(file, withDigest);
  }

  /** Names of the lines of servers that an archive can be delivered to. */
  public List<String> goesTo(Artifact artifact) {
    return means.kinds().lines().stream()
        .filter(line -> line.suit(artifact))
        .map(Traits::label)
        .toList();
  }

  /** What can be made from what stands there. */
  public Drafts drafts() {
    return new Drafts(means, this::packed);
  }

  private void packed(PackDescription description, Path file) {
    packing(packable(), PackWatch.NONE).built(BuildMode.WHEN_STALE).pack(description, file);
  }

  /** SHA-256 of a file. */
  public static String digest(Path file) {
    try {
      return Digests.of(file);
    } catch (IOException e) {
      throw new ArtifactException("Cannot read '" + file + "': " + IoReason.of(e));
    }
  }

  /** Whether two files hold the same bytes. */
  public static boolean identical(Path one, Path other) {
    try {
      return Files.mismatch(one, other) < 0;
    } catch (IOException e) {
      throw new ArtifactException("Cannot compare: " + IoReason.of(e));
    }
  }

  /** How the files of two archives differ. */
  public Comparison compare(Path before, Path after) {
    try (ZipArchive one = ZipArchive.open(before);
        ZipArchive other = ZipArchive.open(after)) {
      return Comparison.of(one.members(), other.members());
    } catch (IOException e) {
      throw new ArtifactException("Cannot compare: " + IoReason.of(e));
    }
  }

  /**
   * Packs what {@code jolly.toml} describes to where it says.
   *
   * @param name of a {@code [pack.NAME]}; empty: the one that is delivered, or the only one
   */
  public Packed pack(Optional<String> name, BuildMode mode, PackWatch watch) {
    Application application = packable();
    PackDescription description = PackChoice.chosen(application, name);
    return packing(application, watch).built(mode).pack(description, description.target());
  }

  /** Packs everything that {@code jolly.toml} describes. */
  public List<Packed> packAll(BuildMode mode, PackWatch watch) {
    Application application = packable();
    Packing packing = packing(application, watch).built(mode);
    List<Packed> packed = new ArrayList<>();
    try {
      for (PackDescription description : application.making().packs()) {
        packed.add(packing.pack(description, description.target()));
      }
    } catch (PackException e) {
      String before =
          packed.stream().map(one -> "'" + one.file() + "'").collect(Collectors.joining(", "));
      throw packed.isEmpty() ? e : new PackException(e.getMessage() + ". Packed before: " + before);
    }
    return List.copyOf(packed);
  }

  private Application packable() {
    Application application = Descriptions.atItsName(descriptions.application(Optional.empty()));
    if (application.making().packs().isEmpty()) {
      throw new NotDescribedException(
          "Cannot pack '"
              + application.name()
              + "': "
              + application.file().orElseThrow()
              + " has no [pack]");
    }
    return application;
  }

  private Packing packing(Application application, PackWatch watch) {
    PackWatch obeying =
        (file, done, all) -> {
          if (interrupts.isAsked()) {
            throw new PackException("Packing was interrupted; what stood there is as it was");
          }
          watch.packed(file, done, all);
        };
    return new Packing(host, setting, application, obeying, means.asking());
  }

  /**
   * A file that somebody names.
   *
   * @param named its path, or its coordinates in a Maven repository
   */
  public Path file(String named) {
    if (!MavenCoordinates.isMeantBy(named)) {
      Path file = setting.folder().resolve(named).normalize();
      if (Files.notExists(file) && named.matches("[\\w.-]+(:[\\w.-]+){2,4}")) {
        throw new NotDescribedException(
            "Cannot read '"
                + named
                + "': there is no such file. One of a Maven repository is maven:"
                + named);
      }
      return file;
    }
    return means.asking().repositories(setting.folder()).file(coordinates(named));
  }

  private static MavenCoordinates coordinates(String named) {
    try {
      MavenCoordinates coordinates = MavenCoordinates.of(named);
      if (coordinates.version().isPresent()) {
        return coordinates;
      }
    } catch (IllegalArgumentException e) {
      throw new NotDescribedException("Cannot read '" + named + "': " + e.getMessage());
    }
    throw new NotDescribedException(
        "Cannot read '" + named + "': its version is missing. Name it, like " + named + ":1.0:war");
  }

  /**
   * Looks for a server before anything else takes long.
   *
   * @throws NotDescribedException when it is not described, or not where it is described
   * @throws jollycrate.host.UnreachableException when its machine is not reached
   */
  public void find(String serverName) {
    site(descriptions.entry(serverName));
  }

  /** Delivers what {@code jolly.toml} describes. */
  public DeliveryOutcome deploy(String serverName, Manner manner, BuildMode mode) {
    ServerEntry entry = descriptions.entry(serverName);
    DeliveryService service = service(entry);
    Application read = descriptions.application(entry);
    service.mustResolve(read);
    Application application = withDrivers(read);
    if (application.making().packs().isEmpty()) {
      Artifact artifact = ArtifactReader.read(application.making().artifact().orElseThrow());
      return service.deploy(application, artifact, ProjectSource.of(host, application), manner);
    }
    PackDescription pack = Descriptions.chosen(application, entry);
    Path folder = Trees.temporary();
    Path file = folder.resolve(pack.target().getFileName());
    try {
      progress.packed(packing(application, PackWatch.NONE).built(mode).pack(pack, file));
      Artifact artifact = ArtifactReader.read(file);
      return service.deploy(application, artifact, ProjectSource.of(host, application), manner);
    } finally {
      Trees.discard(folder);
    }
  }

  /** Delivers a finished file, as {@code jolly.toml} describes it where there is one. */
  public DeliveryOutcome deployFile(FinishedArtifact finished, String serverName, Manner manner) {
    ServerEntry entry = descriptions.entry(serverName);
    Artifact artifact = ArtifactReader.read(finished.file());
    DeliveryService service = service(entry);
    boolean described = !finished.undescribed() && descriptions.isDescribed();
    Application application =
        described
            ? asDescribed(finished, artifact, entry, service)
            : finished.byItself(artifact, site(entry));
    Source source = ProjectSource.of(host, application);
    return service.deploy(
        application,
        artifact,
        described ? source.with(DescribedFile.findings(artifact, application)) : source,
        manner);
  }

  private Application asDescribed(
      FinishedArtifact finished, Artifact artifact, ServerEntry entry, DeliveryService service) {
    Application read = descriptions.application(Optional.of(entry.name()));
    Application application = Descriptions.placed(finished.asDescribed(read, artifact), entry);
    service.mustResolve(application);
    return withDrivers(application);
  }

  private Application withDrivers(Application application) {
    return Drivers.found(host, setting, application, means.asking());
  }

  /**
   * Takes an application away.
   *
   * @param name of it; empty: the one that {@code jolly.toml} describes
   */
  public DeliveryOutcome undeploy(Optional<String> name, String serverName, Manner manner) {
    ServerEntry entry = descriptions.entry(serverName);
    return service(entry).undeploy(apps().nameOf(name, entry), manner);
  }

  /**
   * Delivers an earlier release of an application again.
   *
   * @param number of the delivery it came with; empty: the release before the one that stands
   */
  public DeliveryOutcome rollback(Optional<Integer> number, String serverName, Manner manner) {
    return service(descriptions.entry(serverName)).rollback(here(), number, manner);
  }

  /** Also a description that cannot be read now must not stand in the way back. */
  private DescribedHere here() {
    Optional<Path> file = descriptions.file();
    try {
      return new DescribedHere(
          file, file.map(found -> descriptions.application(Optional.empty()).name()));
    } catch (ProblemsException broken) {
      return new DescribedHere(file, Optional.empty());
    }
  }

  /** Applications that stand on servers. */
  public Apps apps() {
    return new Apps(means);
  }

  /** The servers apart from their applications. */
  public Servers servers() {
    return new Servers(means);
  }

  /** Other machines. */
  public Hosts hosts() {
    return new Hosts(means);
  }

  /**
   * Runs an application from its build output until it is interrupted, and leaves nothing behind.
   *
   * @param pack name of a {@code [pack.NAME]}; empty: what is delivered
   * @param http port to answer on; empty: the first free one from 8080
   */
  public void run(Optional<String> pack, Optional<Integer> http, LiveRun.Watch watch) {
    inPassing().run(pack, http, watch);
  }

  /** Delivers an application in every shape, each to a scratch place, and measures it there. */
  public List<ShapeRow> shapes(BuildMode mode, Consumer<ShapeRow> done) {
    return inPassing()
        .shapes(application -> packing(application, PackWatch.NONE).built(mode), progress, done);
  }

  private InPassing inPassing() {
    return new InPassing(
        host, setting, descriptions, means.foundation(), means.sites(), this::service, interrupts);
  }

  private DeliveryService service(ServerEntry entry) {
    return service(site(entry), progress);
  }

  private DeliveryService service(Site site, Progress told) {
    return new DeliveryService(site, told, interrupts);
  }

  private Site site(ServerEntry entry) {
    return means.sites().site(entry);
  }
}
