package jollycrate.liberty;

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
import jollycrate.hosting.VersionFile;
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
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;

/** Open Liberty: everything of an application in one piece of configuration. */
public final class LibertyKind implements ServerKind {
  /** In the middle of a sentence. */
  static final String CALLED = "an Open Liberty";

  private static final VersionFile VERSION =
      new VersionFile(
          Path.of("lib/versions/openliberty.properties"),
          Pattern.compile("^com\\.ibm\\.websphere\\.productVersion=(\\S+)", Pattern.MULTILINE),
          Pattern.compile(".*"));
  private static final String STARTING_THREADS = "Default Executor-thread-\\d+";

  @Override
  public Glance recognising(Path installation) {
    return VERSION.glance(installation);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return VERSION.in(files, installation).map(LibertyKind::traits);
  }

  @Override
  public List<Traits> lines() {
    return List.of(traits("26"));
  }

  private static Traits traits(String version) {
    return new Traits(
        "Open Liberty " + version,
        Set.of(ArtifactKind.WAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.JAKARTA,
        17,
        Set.of(Swap.LIVE, Swap.RESTART),
        new Traits.Folders(
            List.of("logs", "tmp", LibertyFiles.STATE, "tranlog", "workarea"),
            List.of(
                LibertyFiles.SERVERS,
                "apps",
                "bootstrap.properties",
                "configDropins",
                "dropins",
                "jvm.options",
                "resources",
                "server.env",
                "server.xml"),
            HostedLogs.USUAL),
        Set.of("com.ibm.", "jakarta."),
        Set.of(Feature.HOSTS, Feature.LOOKS_AT_CONTENT, Feature.ADMIN_LISTENER));
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return LibertyFiles.instance(server, access);
  }

  @Override
  public List<Question> questions() {
    return LibertyBeans.QUESTIONS;
  }

  @Override
  public List<Inside> inside(Stock stock, Answers answers) {
    return new LibertyBeans(stock, answers.beans()).applications();
  }

  @Override
  public List<Wanted.Refused> contradictions(Stock stock) {
    return LibertyRules.of(stock).contradictions();
  }

  @Override
  public List<Path> instances(HostFiles files, Path installation) {
    Path servers = installation.resolve("usr/servers");
    return files.list(servers).stream()
        .filter(folder -> files.facts(folder.resolve("server.xml")).isFile())
        .sorted()
        .toList();
  }

  @Override
  public Optional<SelfDescription> describe(HostFiles files, Stock stock) {
    return LibertyBase.of(stock).isWhole()
        ? Optional.of(new LibertySelf(stock).description())
        : Optional.empty();
  }

  @Override
  public List<ServerUser> users(HostFiles files, Stock stock) {
    return UserXml.files(LibertyBase.of(stock), UserXml.REGISTRY).all(stock);
  }

  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    return wish instanceof Wish.AsDescribed || LibertyBase.of(stock).isOurs()
        ? ToldAtStart.overhaul(stock.server(), contradictions(stock), wish)
        : ServerKind.super.overhaul(files, stock, wish);
  }

  @Override
  public List<Path> reads(Server server) {
    List<Path> files = new ArrayList<>(LibertyBase.reads(server));
    files.addAll(LibertyProcesses.optionsFiles(server));
    return files;
  }

  @Override
  public List<Among> readsAmong(Server server) {
    return LibertyBase.allDropins(server).stream()
        .map(folder -> new Among(folder, UserFiles.ENDING))
        .toList();
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return List.of(LibertyOccupants.archives(server).folder());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return LibertyOccupants.of(stock);
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new LibertyPlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    return new LibertyLog(evidence.log(), placement).sign(expected, evidence);
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    return file.toString().endsWith(".xml") ? LibertySecrets.in(text) : Map.of();
  }

  @Override
  public KindProcesses processes() {
    return new LibertyProcesses();
  }

  @Override
  public KindLogs logs() {
    return new HostedLogs(LibertyLog.FORMAT, STARTING_THREADS, LibertyLog::new);
  }
}
