package jollycrate.memory;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.UnaryOperator;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import jollycrate.app.Application;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.DataSource;
import jollycrate.app.Expect;
import jollycrate.app.Front;
import jollycrate.app.Jvm;
import jollycrate.app.Keeping;
import jollycrate.app.Ports;
import jollycrate.app.Statuses;
import jollycrate.app.Steering;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactReader;
import jollycrate.check.Answer;
import jollycrate.check.Requester;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryService;
import jollycrate.delivery.DescribedHere;
import jollycrate.delivery.Manner;
import jollycrate.delivery.ServerChanges;
import jollycrate.delivery.ServerService;
import jollycrate.delivery.Source;
import jollycrate.delivery.StandingService;
import jollycrate.host.Host;
import jollycrate.journal.Journal;
import jollycrate.secret.Secrets;
import jollycrate.server.Server;
import jollycrate.server.Swap;
import jollycrate.server.Wish;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** A machine with a server, and releases to be delivered to it. */
public final class World {
  /** What a release is does not change, however often it is delivered. */
  private static final Map<Path, Artifact> READ = new ConcurrentHashMap<>();

  /** A release that stands before. */
  static final String OLD = "v1 right";

  /** One that takes its place. */
  static final String NEW = "v2 right";

  static final Path FOLDER = Path.of("/srv");
  private static final Path ROUTES = FOLDER.resolve("routes");
  private static final Front FRONT =
      new Front(
          ROUTES.resolve("front.conf"),
          "all",
          URI.create("http://front/"),
          MemoryFront.TEST,
          MemoryFront.RELOAD);
  static final Path RECORDS = FOLDER.resolve(".jolly");
  private static final List<Path> LEFT_OUT =
      List.of(RECORDS, FOLDER.resolve("logs"), FOLDER.resolve("exploded"));

  final MemoryHost host = new MemoryHost();
  final MemoryServer server;

  /** How the last delivery went. */
  Optional<DeliveryOutcome> last = Optional.empty();

  /** How the next deliveries go about. */
  Manner manner = Manner.USUAL;

  /** What stands in a file that every application needs. */
  String driver = "driver";

  /** What happens while the server is asked. */
  Runnable requests = () -> {};

  private Optional<DataSource> source = Optional.empty();
  private final Site site;
  private final Path releases;

  World(Swap swap, Path releases) {
    this(swap, releases, false);
  }

  /** A world in which requests may come through a web server before it. */
  World(Swap swap, Path releases, boolean fronted) {
    this(swap, releases, fronted, host -> host);
  }

  /** A world whose machine is seen in some way. */
  World(Swap swap, Path releases, boolean fronted, UnaryOperator<Host> view) {
    this.releases = releases;
    Optional<MemoryFront> before =
        fronted ? Optional.of(new MemoryFront(host, ROUTES)) : Optional.empty();
    before.ifPresent(host::fronted);
    server = new MemoryServer(host, FOLDER, before);
    host.quietFolder(Path.of("/java"));
    host.quietly(Path.of("/java/release"), "JAVA_VERSION=\"17.0.1\"");
    for (String name : List.of("", "sites", "beside", "routes", "exploded", "left", "logs")) {
      host.quietFolder(FOLDER.resolve(name).normalize());
    }
    host.quietly(FOLDER.resolve("shared.conf"), "# of somebody else\nother: bert\n");
    Server described =
        new Server(
            "bench",
            Path.of("/installation"),
            FOLDER,
            new Ports("127.0.0.1", 8080, Optional.empty(), Optional.empty(), Optional.empty()),
            new Server.Runtime(
                Path.of("/java"), Jvm.USUAL, Map.of(), List.of(), List.of(), Optional.empty()),
            Keeping.USUAL,
            before.map(front -> FRONT),
            Steering.OURS,
            Optional.empty());
    site =
        new Site(
            view.apply(host.host()),
            new MemoryKind(swap, () -> driver),
            MemoryKind.TRAITS,
            described,
            host,
            MemoryRequester::new,
            MemoryRequester::new,
            new Secrets(name -> null),
            "anna",
            () -> {});
  }

  ServerService control() {
    return new ServerService(site, Progress.NONE, new Interrupts());
  }

  DeliveryService service() {
    return new DeliveryService(site, Progress.NONE, new Interrupts());
  }

  /** Stops or starts an application on the running server. */
  void turn(String name, boolean on) {
    StandingService service = new StandingService(site, Progress.NONE, new Interrupts());
    Application application = application(name, releases);
    last = Optional.of(on ? service.start(application) : service.stop(name));
  }

  /** Changes the server itself. */
  void overhaul(Wish wish) {
    ServerChanges changes =
        new ServerChanges(site, site.server().ports(), Progress.NONE, new Interrupts());
    last = Optional.of(changes.change(wish, Optional.empty(), false));
  }

  /** A release is an archive with a text that says how it behaves. */
  DeliveryOutcome deploy(String name, String release) {
    Path file = releases.resolve(name + "-" + release.replace(' ', '_') + ".war");
    if (Files.notExists(file)) {
      archive(file, release);
    }
    Artifact artifact = READ.computeIfAbsent(file, ArtifactReader::read);
    last = Optional.of(service().deploy(application(name, file), artifact, Source.UNKNOWN, manner));
    return last.get();
  }

  /** Not compressed, so that what it says can be read in its bytes. */
  private static void archive(Path file, String release) {
    byte[] text = release.getBytes(StandardCharsets.US_ASCII);
    CRC32 sum = new CRC32();
    sum.update(text);
    ZipEntry entry = new ZipEntry("WEB-INF/release.txt");
    entry.setMethod(ZipEntry.STORED);
    entry.setSize(text.length);
    entry.setCrc(sum.getValue());
    entry.setTime(0);
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      zip.putNextEntry(entry);
      zip.write(text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The same, before which a database is changed. */
  DeliveryOutcome deployWithScript(String name, String release) {
    source = Optional.of(MemoryDatabase.source(releases));
    return deploy(name, release);
  }

  void rollback(int delivery) {
    last = Optional.of(service().rollback(DescribedHere.NOTHING, Optional.of(delivery), manner));
  }

  void undeploy(String name) {
    last = Optional.of(service().undeploy(name, manner));
  }

  /** Whether the journal says that a delivery after the first so many was proven. */
  boolean provenSince(int deliveries) {
    return Journal.read(host.asItStands(), RECORDS.resolve("journal.jsonl"))
        .filter(journal -> journal.opened().delivery() > deliveries)
        .filter(journal -> journal.proven().isPresent())
        .isPresent();
  }

  private static Answer came(int status, String text) {
    Map<String, String> head = Map.of("Content-Type", "text/plain");
    return Answer.came(status, head, Answer.Body.of(text), Duration.ZERO);
  }

  private Application application(String name, Path file) {
    Application bare = Application.of(file, name, Optional.of("/" + name), Duration.ofSeconds(8));
    Check check =
        new Check(
            "answers rightly",
            Ask.get("/", Optional.empty()),
            new Expect(
                Statuses.SUCCESS,
                Expect.Head.ANY,
                Expect.Body.with("right"),
                Optional.empty(),
                Optional.empty()));
    return new Application(
        bare.file(),
        name,
        bare.version(),
        bare.making(),
        bare.context(),
        source.stream().toList(),
        bare.access(),
        bare.program(),
        List.of(check),
        List.of());
  }

  Map<String, String> files() {
    return host.snapshot(FOLDER, LEFT_OUT);
  }

  /** Names of our own records, apart from those that stay. */
  List<String> strayRecords() {
    return host.children(RECORDS).stream()
        .map(path -> path.getFileName().toString())
        .filter(
            name ->
                !name.matches(
                    "stopped-a|(standing|process)\\.json|(journal|deliveries)\\.jsonl|process\\.pid|told|releases"))
        .toList();
  }

  /** Requests to the server in memory. */
  private final class MemoryRequester implements Requester {
    @Override
    public Answer send(Request request, Duration limit) {
      URI url = request.url();
      if (url.getPath().equals("/")) {
        return came(404, "");
      }
      requests.run();
      String name = url.getPath().split("/")[1];
      return server.answer(name).map(text -> came(200, text)).orElse(came(404, ""));
    }

    @Override
    public X509Certificate certificate(URI url, Duration limit) throws IOException {
      throw new IOException("it speaks no TLS");
    }

    @Override
    public void close() {}
  }
}
