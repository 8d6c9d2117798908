package jollycrate.glassfish;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.hosting.HostedLogs;
import jollycrate.hosting.ToldAtStart;
import jollycrate.hosting.VersionFile;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Feature;
import jollycrate.server.KindLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Overhaul;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
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

/** GlassFish 7.0: archives in a folder that it looks at. */
public final class GlassfishKind implements ServerKind {
  /** In the middle of a sentence. */
  static final String CALLED = "a GlassFish";

  private static final VersionFile VERSION =
      new VersionFile(
          Path.of("glassfish/config/branding/glassfish-version.properties"),
          Pattern.compile("^product\\.version=(\\d[\\d.]*)\\s*$", Pattern.MULTILINE),
          Pattern.compile("7\\.0\\..*"));
  private static final String START = "jollycrate/insideglassfish/Start.class";
  private static final String STARTING_THREAD = "AutoDeployer";

  @Override
  public Glance recognising(Path installation) {
    return VERSION.glance(installation);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return VERSION.in(files, installation).map(GlassfishKind::traits);
  }

  @Override
  public Optional<String> unsupported(HostFiles files, Path installation) {
    return VERSION.unsupported(files, installation).map("GlassFish "::concat);
  }

  @Override
  public List<Traits> lines() {
    return List.of(traits("7.0"));
  }

  private static Traits traits(String version) {
    return new Traits(
        "GlassFish " + version,
        Set.of(ArtifactKind.WAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.JAKARTA,
        17,
        Set.of(Swap.LIVE, Swap.RESTART),
        new Traits.Folders(
            List.of("logs", "tmp", GlassfishFiles.STATE),
            List.of(
                GlassfishFiles.CONFIGURATION, GlassfishFiles.DEPLOYMENTS, GlassfishFiles.LIBRARIES),
            HostedLogs.USUAL),
        Set.of("com.sun.", "jakarta.", "org.apache.catalina.", "org.glassfish."),
        Set.of(Feature.HOSTS));
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return GlassfishFiles.instance(files, server, access, ClassPathPlace.of(START));
  }

  @Override
  public List<Wanted.Refused> contradictions(Stock stock) {
    Server server = stock.server();
    if (!stock.texts().containsKey(GlassfishFiles.domain(server))) {
      return List.of(theirs(server));
    }
    List<Wanted.Refused> told = new ArrayList<>(ToldAtStart.contradictions(CALLED, server));
    if (server.ports().admin().isPresent()) {
      told.add(
          new Wanted.Refused(
              "admin", CALLED + " has no admin listener", "Take 'admin' out of servers.toml"));
    }
    return told;
  }

  /**
   * One whose root we do not prepare keeps entries and copies of what it deployed, and serves those
   * after its next start, whatever archives stand there by then.
   */
  private static Wanted.Refused theirs(Server server) {
    return new Wanted.Refused(
        server.name(),
        "a GlassFish that you have keeps copies of what it deployed, and serves them after its next"
            + " start although their archives are gone or others by then, so nothing could be"
            + " proven or taken back",
        "Make one of its own: jolly server new "
            + server.name()
            + " --installation "
            + server.installation());
  }

  @Override
  public List<Path> instances(HostFiles files, Path installation) {
    return files.list(installation.resolve("glassfish/domains")).stream().sorted().toList();
  }

  @Override
  public List<ServerUser> users(HostFiles files, Stock stock) {
    Path file = GlassfishFiles.users(stock.server());
    return UserLines.all(stock.text(file).orElse(""), stock.server().shown(file));
  }

  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    return ToldAtStart.overhaul(stock.server(), contradictions(stock), wish);
  }

  @Override
  public List<Path> reads(Server server) {
    return List.of(
        GlassfishFiles.domain(server),
        GlassfishFiles.logging(server),
        GlassfishFiles.users(server));
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return List.of(GlassfishFiles.archives(server).folder());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return GlassfishFiles.archives(stock.server()).occupants(stock);
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new GlassfishPlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    return new GlassfishLog(evidence.log(), placement).sign(expected, evidence);
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return file.endsWith(GlassfishFiles.CONFIGURATION + "/users")
        ? Optional.of(new UserLines())
        : Optional.empty();
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    return file.endsWith(GlassfishFiles.CONFIGURATION + "/users")
        ? UserLines.secretsIn(new String(text, StandardCharsets.UTF_8))
        : Map.of();
  }

  @Override
  public KindProcesses processes() {
    return new GlassfishProcesses();
  }

  @Override
  public KindLogs logs() {
    return new HostedLogs(GlassfishLog.FORMAT, STARTING_THREAD, GlassfishLog::new);
  }
}
