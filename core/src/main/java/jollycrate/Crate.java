package jollycrate;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.app.ContextPath;
import jollycrate.app.Nearest;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackDescription;
import jollycrate.app.Secrets;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersFile;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactException;
import jollycrate.artifact.ArtifactReader;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.Comparison;
import jollycrate.artifact.Digests;
import jollycrate.artifact.Trees;
import jollycrate.artifact.ZipArchive;
import jollycrate.check.HttpRequester;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryService;
import jollycrate.delivery.Interrupts;
import jollycrate.delivery.Progress;
import jollycrate.delivery.ServerService;
import jollycrate.delivery.Site;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Time;
import jollycrate.pack.PackException;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;
import jollycrate.server.Placement;
import jollycrate.server.RecordsException;
import jollycrate.server.Running;
import jollycrate.server.Server;

/** Everything that the commands do. */
public final class Crate {
  private static final String PROBE = "jollycrate/probe/ConnectProbe.class";

  private final Setting setting;
  private final Secrets secrets;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Host host = Host.local();
  private final Kinds kinds = new Kinds();
  private final ServerFoundation foundation;

  /** With everything that a run of the program shares. */
  public Crate(Setting setting, Secrets secrets, Progress progress, Interrupts interrupts) {
    this.setting = setting;
    this.secrets = secrets;
    this.progress = progress;
    this.interrupts = interrupts;
    this.foundation = new ServerFoundation(host, setting, kinds);
  }

  /**
   * What an archive tells about itself.
   *
   * @param withDigest whether the whole file is digested too
   */
  public Artifact inspect(Path file, boolean withDigest) {
    return ArtifactReader.read(file, withDigest);
  }

  /** SHA-256 of a file. */
  public static String digest(Path file) {
    try {
      return Digests.of(file);
    } catch (IOException e) {
      throw new ArtifactException("Cannot read '" + file + "': " + e.getMessage());
    }
  }

  /** Whether two files hold the same bytes. */
  public static boolean identical(Path one, Path other) {
    try {
      return Files.mismatch(one, other) < 0;
    } catch (IOException e) {
      throw new ArtifactException("Cannot compare: " + e.getMessage());
    }
  }

  /** How the files of two archives differ. */
  public Comparison compare(Path before, Path after) {
    try (ZipArchive one = ZipArchive.open(before);
        ZipArchive other = ZipArchive.open(after)) {
      return Comparison.of(one, other);
    } catch (IOException e) {
      throw new ArtifactException("Cannot compare: " + e.getMessage());
    }
  }

  /**
   * Packs what {@code jolly.toml} describes to where it says.
   *
   * @param name of a {@code [pack.NAME]}; empty: the one that is delivered, or the only one
   */
  public Packed pack(Optional<String> name, BuildMode mode, PackWatch watch) {
    Application application = packable();
    PackDescription description = Packing.chosen(application, name);
    return packing(application, watch).built(mode).pack(description, description.target());
  }

  /** Packs everything that {@code jolly.toml} describes. */
  public List<Packed> packAll(BuildMode mode, PackWatch watch) {
    Application application = packable();
    Packing packing = packing(application, watch).built(mode);
    return application.packs().stream()
        .map(description -> packing.pack(description, description.target()))
        .toList();
  }

  private Application packable() {
    Application application = application(Optional.empty());
    if (application.packs().isEmpty()) {
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
    return new Packing(host, setting, application, obeying, progress::waitingFor);
  }

  /** Delivers what {@code jolly.toml} describes. */
  public DeliveryOutcome deploy(
      String serverName, boolean onAdminPort, boolean dryRun, BuildMode mode) {
    ServerEntry entry = entry(serverName);
    Application application = application(Optional.of(serverName));
    DeliveryService service = service(entry);
    if (application.packs().isEmpty()) {
      Artifact artifact = ArtifactReader.read(application.artifact().orElseThrow());
      return service.deploy(application, artifact, onAdminPort, dryRun);
    }
    PackDescription pack = Packing.chosen(application, Optional.empty());
    Path folder = temporaryFolder();
    Path file = folder.resolve(pack.target().getFileName());
    try {
      progress.packed(packing(application, PackWatch.NONE).built(mode).pack(pack, file));
      return service.deploy(application, ArtifactReader.read(file), onAdminPort, dryRun);
    } finally {
      delete(folder);
    }
  }

  private static Path temporaryFolder() {
    try {
      return Files.createTempDirectory("jolly");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void delete(Path tree) {
    try {
      Trees.delete(tree);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /**
   * Delivers an artifact that no {@code jolly.toml} describes.
   *
   * @param path context path; empty: by the server's own rule
   */
  public DeliveryOutcome deployFile(
      Path file, Optional<String> path, String serverName, boolean onAdminPort, boolean dryRun) {
    path.map(ContextPath::fault)
        .filter(fault -> !fault.isEmpty())
        .ifPresent(
            fault -> {
              throw new NotDescribedException(
                  "Cannot use '"
                      + path.get()
                      + "' as a context path: "
                      + fault
                      + ". Write it like /spokes, or / for the root");
            });
    ServerEntry entry = entry(serverName);
    Artifact artifact = ArtifactReader.read(file);
    Application application =
        Application.of(file.toAbsolutePath(), nameOf(file), path.map(ContextPath::normal));
    return service(entry).deploy(application, artifact, onAdminPort, dryRun);
  }

  /** The name of an application that only its file tells. */
  private static String nameOf(Path file) {
    return file.getFileName()
        .toString()
        .replaceFirst("\\.[^.]*$", "")
        .replaceFirst("##.*", "")
        .replaceAll("[^A-Za-z0-9._-]", "-");
  }

  /** Takes an application away. */
  public DeliveryOutcome undeploy(String application, String serverName, boolean dryRun) {
    return service(entry(serverName)).undeploy(application, dryRun);
  }

  /**
   * Runs the checks against what stands on a server.
   *
   * @param name of an application that no {@code jolly.toml} describes
   */
  public DeliveryOutcome check(Optional<String> name, String serverName) {
    ServerEntry entry = entry(serverName);
    Application application =
        name.map(n -> Application.of(Path.of(n), n, Optional.empty()))
            .orElseGet(() -> application(Optional.of(serverName)));
    return service(entry).check(application);
  }

  /** One server apart from its applications. */
  public ServerService server(String serverName) {
    return server(entry(serverName));
  }

  private ServerService server(ServerEntry entry) {
    return new ServerService(site(entry), progress, interrupts);
  }

  private DeliveryService service(ServerEntry entry) {
    return new DeliveryService(
        site(entry), secrets, progress, interrupts, HttpRequester::new, ClassPathPlace.of(PROBE));
  }

  private Site site(ServerEntry entry) {
    Path installation = entry.installation().orElseGet(() -> PracticeInstallation.in(setting));
    Server server = foundation.server(entry, installation, real(entry.folder()));
    if (!host.files().facts(server.folder()).isFolder()) {
      throw new NotDescribedException(
          "Cannot find server '"
              + entry.name()
              + "': there is no folder '"
              + server.folder()
              + "'. Mend 'folder' in servers.toml, or remove the entry and make the server with"
              + " 'jolly server new "
              + entry.name()
              + "'");
    }
    Kinds.Recognised recognised = kinds.recognise(host.files(), installation);
    return new Site(
        host, recognised.kind(), recognised.traits(), server, Time.system(), setting.by());
  }

  /** Where a folder really is: the server's own log and records speak of that path. */
  private static Path real(Path folder) {
    try {
      return folder.toRealPath();
    } catch (IOException absent) {
      return folder;
    }
  }

  /** Makes a practice server and describes it in {@code servers.toml}. */
  public ServerEntry newServer(NewServer wanted) {
    Path file =
        ApplicationFile.findUpwards(setting.folder(), ServersFile.NAME)
            .orElse(setting.folder().resolve(ServersFile.NAME));
    return foundation.found(wanted, file);
  }

  /** Every described server as it stands now. */
  public List<ServerState> servers() {
    return entries().stream().map(this::state).toList();
  }

  private ServerState state(ServerEntry entry) {
    String address = "http://" + entry.address() + ":" + entry.http() + "/";
    int admin = entry.admin().orElse(0);
    try {
      Site site = site(entry);
      ServerService service = server(entry);
      List<ServerState.Standing> standing =
          service.placements().stream().map(Crate::standing).toList();
      long pid =
          site.stockTaker().running().map(Running::identity).map(found -> found.pid()).orElse(0L);
      return new ServerState(
          entry.name(),
          site.traits().label(),
          entry.folder().toString(),
          address,
          admin,
          pid,
          standing,
          service.unfinished().orElse(""));
    } catch (NotDescribedException | HostException | RecordsException e) {
      return new ServerState(
          entry.name(),
          "",
          entry.folder().toString(),
          address,
          admin,
          0,
          List.of(),
          e.getMessage());
    }
  }

  private static ServerState.Standing standing(Placement placement) {
    return new ServerState.Standing(
        placement.application(), placement.version(), placement.address());
  }

  private Application application(Optional<String> server) {
    Path file =
        ApplicationFile.findUpwards(setting.folder(), ApplicationFile.NAME)
            .orElseThrow(
                () ->
                    new NotDescribedException(
                        "Cannot find jolly.toml in '"
                            + setting.folder()
                            + "' or above. Go to your"
                            + " project's folder, or name a file: jolly deploy FILE.war --to NAME"));
    Application read = ApplicationFile.read(file, server);
    return read.path().isPresent() ? read : read.at("/" + read.name());
  }

  private List<ServerEntry> entries() {
    return ServersFile.read(
        ApplicationFile.findUpwards(setting.folder(), ServersFile.NAME)
            .orElseThrow(
                () ->
                    new NotDescribedException(
                        "Cannot find servers.toml in '"
                            + setting.folder()
                            + "' or above. Make a"
                            + " practice server with 'jolly server new NAME'")));
  }

  private ServerEntry entry(String name) {
    List<ServerEntry> entries = entries();
    List<String> names = entries.stream().map(ServerEntry::name).toList();
    return entries.stream()
        .filter(entry -> entry.name().equals(name))
        .findFirst()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot find server '"
                        + name
                        + "' in servers.toml. "
                        + Nearest.to(name, names)
                            .map(near -> "Did you mean '" + near + "'?")
                            .orElse("Described there: " + String.join(", ", names))));
  }
}
