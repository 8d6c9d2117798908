package jollycrate.jetty;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.host.Question;
import jollycrate.hosting.HostedLogs;
import jollycrate.hosting.VersionedArchive;
import jollycrate.server.Among;
import jollycrate.server.Answers;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Feature;
import jollycrate.server.Inside;
import jollycrate.server.KindLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Overhaul;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.SelfDescription;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.server.Sign;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;

/** Eclipse Jetty: everything of an application in one descriptor. */
public final class JettyKind implements ServerKind {
  /** Where applications are unpacked, from the server's folder on. */
  static final String UNPACKED = "work";

  private static final String STARTING_THREADS = "main|Scanner-\\d+-\\d+";

  private static final VersionedArchive VERSION =
      new VersionedArchive(
          Path.of("lib"),
          Pattern.compile("jetty-server-(\\d[^/]*)\\.jar"),
          Pattern.compile("12\\.1\\..*"));

  static Among etc(Server server) {
    return new Among(server.folder().resolve("etc"), ".xml");
  }

  @Override
  public Glance recognising(Path installation) {
    return VERSION.glance(installation);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return VERSION.in(files, installation).map(JettyKind::traits);
  }

  @Override
  public Optional<String> unsupported(HostFiles files, Path installation) {
    return VERSION.unsupported(files, installation).map("Jetty "::concat);
  }

  @Override
  public List<Traits> lines() {
    return List.of(traits("12.1"));
  }

  private static Traits traits(String version) {
    return new Traits(
        "Jetty " + version,
        Set.of(ArtifactKind.WAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.BOTH,
        17,
        Set.of(Swap.LIVE, Swap.RESTART),
        new Traits.Folders(
            List.of("logs", "tmp", UNPACKED),
            List.of(
                "environments",
                "etc",
                "lib",
                "modules",
                "resources",
                "start.d",
                "start.ini",
                "webapps",
                Environment.JAVAX_FOLDER),
            HostedLogs.USUAL),
        Set.of("org.eclipse.jetty."),
        Set.of(Feature.HOSTS, Feature.ADMIN_LISTENER));
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return JettyInstance.pieces(server, access);
  }

  @Override
  public Optional<SelfDescription> describe(HostFiles files, Stock stock) {
    return Optional.of(new JettySelf(stock).description());
  }

  @Override
  public List<Question> questions() {
    return JettyBeans.QUESTIONS;
  }

  @Override
  public List<Inside> inside(Stock stock, Answers answers) {
    return new JettyBeans(stock, answers.beans()).applications();
  }

  @Override
  public List<Wanted.Refused> contradictions(Stock stock) {
    return JettyBase.of(stock).contradictions();
  }

  /** Ports of one that we made are told to it when it is started; its files need no change. */
  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    return wish instanceof Wish.AsDescribed && JettyBase.of(stock).isOurs()
        ? JettyBase.of(stock).contradictions().stream()
            .findFirst()
            .map(Overhaul::refused)
            .orElse(Overhaul.NONE)
        : ServerKind.super.overhaul(files, stock, wish);
  }

  @Override
  public List<Path> reads(Server server) {
    return List.of(JettyBase.startIni(server));
  }

  @Override
  public List<Among> readsAmong(Server server) {
    List<Among> among = new ArrayList<>(List.of(JettyBase.startD(server), etc(server)));
    Stream.of("webapps", Environment.JAVAX_FOLDER)
        .map(server.folder()::resolve)
        .forEach(
            folder -> {
              among.add(new Among(folder, ".xml"));
              among.add(new Among(folder, JettyOccupants.PROPERTIES));
            });
    return among;
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return new JettyBase(server, texts).folders();
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return new JettyOccupants(stock).all();
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new JettyPlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    return new JettyLog(evidence.log(), placement).sign(expected, evidence);
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    String name = file.getFileName().toString();
    return name.endsWith(".xml")
        ? ContextXml.secretsIn(text)
        : name.endsWith(".properties") ? UsersProperties.secretsIn(text) : Map.of();
  }

  @Override
  public KindProcesses processes() {
    return new JettyProcesses();
  }

  @Override
  public KindLogs logs() {
    return new HostedLogs(JettyLog.FORMAT, STARTING_THREADS, JettyLog::new);
  }
}
