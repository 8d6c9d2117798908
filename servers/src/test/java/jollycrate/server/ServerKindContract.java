package jollycrate.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;
import jollycrate.app.ApplicationFile;
import jollycrate.app.Boot;
import jollycrate.app.Jvm;
import jollycrate.app.Keeping;
import jollycrate.app.Ports;
import jollycrate.app.Steering;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ArtifactReader;
import jollycrate.boot.BootUnit;
import jollycrate.host.Access;
import jollycrate.host.Fact;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Launch;
import jollycrate.host.Life;
import jollycrate.secret.Reference;
import jollycrate.secret.Secrets;
import jollycrate.stock.StockTaker;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What every kind of server keeps to, whatever it does; each kind says which values to use. */
public abstract class ServerKindContract {
  private static final String SECRET = "ding-dong-9";
  private static final String ENTRY = "postage & stamps 4";

  @TempDir protected Path folder;
  private final Host host = Host.local();
  private Server server;
  private ServerKind kind;

  protected abstract ServerKind kind();

  /** Makes an installation as far as the kind looks at it; the folder itself for one without. */
  protected abstract Path installation(Path instance) throws IOException;

  /** How the secret is handed to the artifact, besides its data source. */
  protected abstract String handed();

  /** The port of its admin listener; empty when it can have none. */
  protected Optional<Integer> admin() {
    return Optional.of(18_092);
  }

  /** Its folder, from that of the test on. */
  protected String instanceName() {
    return "instance";
  }

  /** What is looked at. */
  protected final Server server() {
    return server;
  }

  @BeforeEach
  void instance() throws IOException {
    kind = kind();
    Path instance = Files.createDirectories(folder.resolve(instanceName()));
    server =
        new Server(
            "bench",
            installation(instance),
            instance,
            new Ports("127.0.0.1", 18_091, Optional.empty(), admin(), Optional.empty()),
            new Server.Runtime(
                Path.of(System.getProperty("java.home")),
                Jvm.USUAL,
                host.environment(),
                List.of(),
                List.of(),
                Optional.empty()),
            Keeping.USUAL,
            Optional.empty(),
            Steering.OURS,
            Optional.of(Boot.SYSTEM));
    HostFiles files = host.files();
    Access access = files.facts(instance).access();
    for (Piece piece : pieces(files, access)) {
      put(piece);
    }
  }

  /** What stands in its folder, which we made unless told. */
  protected List<Piece> pieces(HostFiles files, Access access) {
    return kind.instance(files, server, access);
  }

  /** What its files say, the server being described with a port for HTTP. */
  protected final List<String> contradictions(int http) {
    server =
        server.listening(
            new Ports("127.0.0.1", http, Optional.empty(), Optional.empty(), Optional.empty()));
    return kind.contradictions(stock()).stream().map(Wanted.Refused::message).toList();
  }

  private void put(Piece piece) {
    if (piece instanceof Piece.WholeFile file) {
      host.files().put(file.path(), file.content(), file.access());
    } else if (piece instanceof Piece.Folder made && !host.files().facts(made.path()).exists()) {
      host.files().makeFolder(made.path(), made.access());
    }
  }

  /** What stands there. */
  protected final Stock stock() {
    return new StockTaker(host, kind, server).take(List.of());
  }

  private Artifact artifact(String content) throws IOException {
    Manifest manifest = new Manifest();
    manifest.getMainAttributes().put(Attributes.Name.MANIFEST_VERSION, "1.0");
    boolean war =
        kind.recognise(host.files(), server.installation())
            .orElseThrow()
            .takes()
            .contains(ArtifactKind.WAR);
    if (!war) {
      manifest.getMainAttributes().put(Attributes.Name.MAIN_CLASS, "bell.Tower");
    }
    Path file = folder.resolve("bell-" + content + (war ? ".war" : ".jar"));
    try (JarOutputStream jar = new JarOutputStream(Files.newOutputStream(file), manifest)) {
      jar.putNextEntry(new JarEntry(war ? "WEB-INF/web.xml" : "note.txt"));
      jar.write(
          ("<web-app><display-name>"
                  + content
                  + "</display-name><resource-ref><res-ref-name>bell</res-ref-name><res-type>javax.sql.DataSource</res-type></resource-ref>"
                  + "<env-entry><env-entry-name>mail/key</env-entry-name>"
                  + "<env-entry-type>java.lang.String</env-entry-type></env-entry></web-app>")
              .getBytes());
    }
    return ArtifactReader.read(file);
  }

  /** What an application with a data source needs. */
  protected final Wanted wanted(String content) throws IOException {
    return wanted(artifact(content));
  }

  private Wanted wanted(Artifact artifact) throws IOException {
    return kind.wanted(stock(), order(artifact));
  }

  @Test
  void itKnowsItsOwnInstallationAndNoOther() throws IOException {
    assertThat(kind.recognise(host.files(), server.installation())).isPresent();
    Path empty = Files.createDirectory(folder.resolve("empty"));
    assertThat(kind.recognise(host.files(), empty)).isEmpty();
  }

  @Test
  void whatIsWantedDependsOnNothingButItsArguments() throws IOException {
    Artifact artifact = artifact("1");
    assertThat(told(wanted(artifact))).isEqualTo(told(wanted(artifact)));
  }

  private static List<String> told(Wanted wanted) {
    return wanted.pieces().stream().map(p -> p.path() + " " + p.digest() + " " + p.part()).toList();
  }

  @Test
  void oneSwitchMakesItLiveAndFoldersStandBeforeWhatIsInThem() throws IOException {
    Wanted wanted = wanted("1");
    assertThat(wanted.refused()).isEmpty();
    assertThat(wanted.pieces().stream().filter(piece -> piece.part() == Part.SWITCH))
        .singleElement()
        .extracting(Piece::path)
        .isEqualTo(wanted.placement().switchPath());
    List<Path> made = new ArrayList<>(List.of(server.folder()));
    for (Piece piece : wanted.pieces()) {
      Path parent = piece.path().getParent();
      assertThat(made.contains(parent) || Files.isDirectory(parent)).as("" + parent).isTrue();
      made.add(piece.path());
    }
  }

  /** But for the switch nothing is ever written over. */
  @Test
  void anotherReleaseStandsBesideTheFirstUnderANameOfItsOwn() throws IOException {
    Map<Path, String> first = files(wanted("1"));
    Map<Path, String> second = files(wanted("2"));
    assertThat(second).isNotEqualTo(first);
    Path switchPath = wanted("1").placement().switchPath();
    first.forEach(
        (path, digest) -> {
          if (!path.equals(switchPath)) {
            assertThat(second.getOrDefault(path, digest)).as("" + path).isEqualTo(digest);
          }
        });
  }

  private static Map<Path, String> files(Wanted wanted) {
    Map<Path, String> files = new HashMap<>();
    for (Piece piece : wanted.pieces()) {
      if (piece instanceof Piece.WholeFile) {
        files.put(piece.path(), piece.digest());
      }
    }
    return files;
  }

  @Test
  void secretsStandOnlyInFilesOfTheirOwner() throws IOException {
    boolean found = false;
    for (Piece piece : wanted("1").pieces()) {
      if (piece instanceof Piece.WholeFile file) {
        try (InputStream in = file.content().open()) {
          String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
          if (text.contains(SECRET)) {
            found = true;
            assertThat(file.access().mode()).as("" + file.path()).isEqualTo("rw-------");
          }
        }
      }
    }
    assertThat(found).isTrue();
    assertThat(kind.processes().launch(stock()).command())
        .noneMatch(argument -> argument.contains(SECRET));
  }

  /**
   * An undeploy resolves no reference: what its diff must not show is known from the files alone.
   */
  @Test
  void secretsOfEarlierDeliveriesAreToldByTheFilesAlone() throws IOException {
    List<String> secret = new ArrayList<>(List.of(SECRET, ENTRY));
    StringBuilder texts = new StringBuilder();
    Secrets secrets = new Secrets(name -> null);
    Wanted wanted = kind.wanted(stock(), withMore(order(artifact("1"))));
    for (Piece piece : wanted.pieces()) {
      byte[] text = bytes(piece);
      texts.append(new String(text, StandardCharsets.UTF_8)).append('\n');
      kind.secrets(piece.path(), text).forEach(secrets::hide);
      assertThat(kind.secrets(piece.path(), "<broken".getBytes())).isNotNull();
    }
    wanted.hidden().keySet().stream().filter(it -> it.length() > 20).forEach(secret::add);
    assertThat(secrets.mask(texts.toString())).doesNotContain(secret);
  }

  private static byte[] bytes(Piece piece) throws IOException {
    if (piece instanceof Piece.WholeFile file && !file.path().toString().matches(".*[jw]ar")) {
      try (InputStream in = file.content().open()) {
        return in.readAllBytes();
      }
    }
    return piece instanceof Piece.Fragment fragment ? fragment.text().getBytes() : new byte[0];
  }

  /** The same with a secret entry and a user, where the kind knows such. */
  private Order withMore(Order order) throws IOException {
    if (order.artifact().kind() != ArtifactKind.WAR) {
      return order;
    }
    Path file = folder.resolve("jolly.toml");
    Files.writeString(
        file,
        "[env-entry]\n\"mail/key\" = \"env:MAIL\"\n[users]\nrobin = \"env:ROBIN\"\n",
        StandardOpenOption.APPEND);
    return new Order(
        ApplicationFile.read(file, Optional.empty(), Reference::text),
        order.artifact(),
        "1",
        false,
        Map.of("bell", SECRET),
        Map.of("robin", "bell-and-lamp-2"),
        Map.of(Reference.of("env:MAIL", folder).orElseThrow(), ENTRY),
        Optional.empty());
  }

  @Test
  void aLaunchCarriesItsTokenAndIsTheSameEveryTime() {
    Launch launch = kind.processes().launch(stock());
    assertThat(launch.command()).anyMatch(argument -> argument.contains(Launch.TOKEN));
    assertThat(launch.fingerprint()).isEqualTo(kind.processes().launch(stock()).fingerprint());
  }

  @Test
  void nothingIsUpBeforeAnythingWasSeen() throws IOException {
    assertThat(upAfterNothing(Life.RUNS, Fact.known(true)))
        .isInstanceOfAny(Sign.Waiting.class, Sign.Unnoticed.class);
    assertThat(upAfterNothing(Life.GONE, Fact.known(false))).isInstanceOf(Sign.Failed.class);
  }

  @Test
  void whatCannotBeToldIsWaitedFor() throws IOException {
    for (Expected expected : List.of(Expected.UP, Expected.GONE)) {
      assertThat(afterNothing(expected, Life.UNKNOWN, Fact.unknown("hidden")))
          .isInstanceOfAny(Sign.Waiting.class, Sign.Unnoticed.class);
    }
  }

  private Sign upAfterNothing(Life life, Fact<Boolean> listening) throws IOException {
    return afterNothing(Expected.UP, life, listening);
  }

  private Sign afterNothing(Expected expected, Life life, Fact<Boolean> listening)
      throws IOException {
    Evidence nothing =
        new Evidence(
            "",
            0,
            Duration.ZERO,
            true,
            life,
            listening,
            Set.of(),
            Duration.ZERO,
            "",
            Evidence.Made.NOTHING);
    return kind.sign(stock(), wanted("1").placement(), expected, nothing);
  }

  /** An application with a data source whose password is the secret. */
  private Order order(Artifact artifact) throws IOException {
    Path file = folder.resolve("jolly.toml");
    Files.writeString(
        file,
        "name = \"bell\"\nartifact = \""
            + artifact.file()
            + "\"\n[datasource.bell]\nurl = \"jdbc:h2:mem:bell\"\nuser = \"bell\"\n"
            + "password = \"env:BELL\"\ndriver = \"none.jar\"\n"
            + handed());
    return new Order(
        ApplicationFile.read(file, Optional.empty(), Reference::text),
        artifact,
        "1",
        false,
        Map.of("bell", SECRET),
        Map.of(),
        Map.of(),
        Optional.empty());
  }

  @Test
  void aUnitOfTheMachineIsWrittenByRootAlone() throws IOException {
    Stock seen = stock();
    Facts owned =
        new Facts(
            server.folder(),
            Facts.Type.FOLDER,
            0,
            new Access("rwxr-x---", "anna", "anna"),
            Instant.EPOCH,
            "");
    Stock stock =
        new Stock(
            server,
            server.folder(),
            Map.of(server.folder(), owned),
            Map.of(),
            seen.texts(),
            Map.of(),
            new Presence.Stopped(),
            Map.of(),
            Set.of(),
            seen.standing(),
            17);
    Launch launch = kind.processes().launch(seen);
    List<Piece> pieces = BootUnit.pieces(stock, launch);
    assertThat(pieces)
        .hasSizeGreaterThan(1)
        .allSatisfy(
            piece ->
                assertThat(
                        piece instanceof Piece.WholeFile file
                            ? file.access().owner()
                            : ((Piece.Folder) piece).access().owner())
                    .isEqualTo("root"));
    try (InputStream unit = ((Piece.WholeFile) pieces.get(pieces.size() - 2)).content().open()) {
      String text = new String(unit.readAllBytes(), StandardCharsets.UTF_8);
      assertThat(text).contains("User=anna\n");
      Map<String, String> own = new HashMap<>(launch.environment());
      own.keySet().removeAll(server.runtime().environment().keySet());
      own.forEach((name, value) -> assertThat(text).contains(name + "=" + value));
    }
  }
}
