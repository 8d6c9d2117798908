package jollycrate.wildfly;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.host.Question;
import jollycrate.hosting.HostedLogs;
import jollycrate.hosting.ToldAtStart;
import jollycrate.hosting.UserFiles;
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
import jollycrate.server.ServerUser;
import jollycrate.server.Sign;
import jollycrate.server.Splicer;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;

/** WildFly, standalone. */
public final class WildflyKind implements ServerKind {
  /** In the middle of a sentence. */
  static final String CALLED = "a WildFly";

  /** Those that serve {@code jakarta.servlet} and run on Java 17. */
  private static final VersionedArchive VERSION =
      new VersionedArchive(
          Path.of("modules/system/layers/base/org/wildfly/extension/undertow/main"),
          Pattern.compile("wildfly-undertow-(\\d+\\.[\\d.]*\\d)\\.[^/]*jar"),
          Pattern.compile("(?:3[0-9]|[4-9]\\d)\\..*"));

  private static final String STARTING_THREADS = "ServerService Thread Pool -- \\d+";

  @Override
  public Glance recognising(Path installation) {
    return VERSION.glance(installation);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return VERSION.in(files, installation).map(WildflyKind::traits);
  }

  @Override
  public Optional<String> unsupported(HostFiles files, Path installation) {
    return VERSION.unsupported(files, installation).map("WildFly "::concat);
  }

  @Override
  public List<Traits> lines() {
    return List.of(traits("39"));
  }

  private static Traits traits(String version) {
    return new Traits(
        "WildFly " + version,
        Set.of(ArtifactKind.WAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.JAKARTA,
        17,
        Set.of(Swap.LIVE, Swap.RESTART),
        new Traits.Folders(
            List.of("logs", "tmp", Instance.STATE, "log"),
            List.of(
                "configuration", Instance.DEPLOYMENTS, "lib", "modules", NewConfiguration.USERS),
            HostedLogs.USUAL),
        Set.of("io.undertow.", "jakarta.", "org.jboss.", "org.wildfly."),
        Set.of(Feature.HOSTS, Feature.ADMIN_LISTENER));
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return Instance.pieces(files, server, access);
  }

  @Override
  public List<Question> questions() {
    return WildflyBeans.QUESTIONS;
  }

  @Override
  public List<Inside> inside(Stock stock, Answers answers) {
    return new WildflyBeans(answers.beans()).applications();
  }

  @Override
  public List<Wanted.Refused> contradictions(Stock stock) {
    return Standalone.of(stock).contradictions();
  }

  @Override
  public List<Path> instances(HostFiles files, Path installation) {
    return List.of(installation.resolve("standalone"));
  }

  @Override
  public Optional<SelfDescription> describe(HostFiles files, Stock stock) {
    return Standalone.of(stock).isWhole()
        ? Optional.of(new WildflySelf(stock).description())
        : Optional.empty();
  }

  @Override
  public List<ServerUser> users(HostFiles files, Stock stock) {
    Standalone configuration = Standalone.of(stock);
    return configuration.isOurs()
        ? IdentityXml.files(stock.server()).all(stock)
        : configuration.realm().map(realm -> realm.all(stock)).orElse(List.of());
  }

  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    return wish instanceof Wish.AsDescribed || Standalone.of(stock).isOurs()
        ? ToldAtStart.overhaul(stock.server(), contradictions(stock), wish)
        : ServerKind.super.overhaul(files, stock, wish);
  }

  @Override
  public List<Path> reads(Server server) {
    List<Path> files =
        new ArrayList<>(List.of(Configuration.file(server), Instance.logging(server)));
    files.addAll(PropertiesRealm.files(server));
    return files;
  }

  @Override
  public List<Among> readsAmong(Server server) {
    return List.of(new Among(server.folder().resolve(NewConfiguration.USERS), UserFiles.ENDING));
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return List.of(Standalone.of(server, texts).archives().folder());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return Standalone.of(stock).archives().occupants(stock);
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new WildflyPlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    return new WildflyLog(evidence.log(), placement).sign(expected, evidence);
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    if (file.endsWith("configuration/standalone.xml")) {
      return Optional.of(new Configuration());
    }
    return file.toString().endsWith(".properties")
        ? Optional.of(new PropertiesRealm.Lines())
        : Optional.empty();
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    String told = new String(text, StandardCharsets.UTF_8);
    return file.endsWith(PropertiesRealm.USERS)
        ? PropertiesRealm.secretsIn(told)
        : IdentityXml.secretsIn(told);
  }

  @Override
  public KindProcesses processes() {
    return new WildflyProcesses();
  }

  @Override
  public KindLogs logs() {
    return new HostedLogs(WildflyLog.FORMAT, STARTING_THREADS, WildflyLog::new);
  }
}
