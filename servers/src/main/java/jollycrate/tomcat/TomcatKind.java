package jollycrate.tomcat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.app.Https;
import jollycrate.app.Ports;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.host.Question;
import jollycrate.hosting.Delivered;
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

/** Apache Tomcat: everything of an application in one context descriptor. */
public final class TomcatKind implements ServerKind {
  private static final Set<String> TOMCAT =
      Set.of(
          "org.apache.catalina.",
          "org.apache.coyote.",
          "org.apache.el.",
          "org.apache.jasper.",
          "org.apache.juli.",
          "org.apache.naming.",
          "org.apache.tomcat.");
  private static final Set<String> TOMEE =
      Set.of("jakarta.", "javax.", "org.apache.", "com.sun.faces.");
  private static final int MOST_NOTES_BYTES = 1 << 16;
  private static final Pattern NOTES = Pattern.compile("Apache Tomcat Version (\\d+)\\.(\\d+)\\S*");
  private static final String SERVER_INFO = "org/apache/catalina/util/ServerInfo.properties";
  private static final int FIRST_JAKARTA = 10;
  private static final String JAR = "lib/catalina.jar";
  private static final String RELEASE_NOTES = "RELEASE-NOTES";

  @Override
  public Glance recognising(Path installation) {
    return new Glance()
        .lists(List.of(Tomee.libraries(installation)))
        .real(List.of(installation.resolve(JAR)))
        .part(installation.resolve(RELEASE_NOTES), 0, MOST_NOTES_BYTES);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    Path jar = files.real(installation.resolve(JAR));
    if (!files.facts(jar).isFile()) {
      return Optional.empty();
    }
    return version(files, installation, jar)
        .map(version -> traits(version, new Tomee(files, installation).version()));
  }

  @Override
  public List<Traits> lines() {
    return List.of(
        traits("9.0", Optional.empty()),
        traits("10.1", Optional.empty()),
        traits("11.0", Optional.empty()),
        traits("10.0", Optional.of("9")));
  }

  private static Optional<String> version(HostFiles files, Path installation, Path archive) {
    byte[] notes = files.read(installation.resolve(RELEASE_NOTES), 0, MOST_NOTES_BYTES);
    Matcher told = NOTES.matcher(new String(notes, StandardCharsets.UTF_8));
    if (told.find()) {
      return Optional.of(told.group().replace("Apache Tomcat Version ", ""));
    }
    return new InstalledJar(files, archive)
        .entry(SERVER_INFO)
        .flatMap(TomcatKind::numberIn)
        .map(number -> number.replaceFirst("^(\\d+\\.\\d+\\.\\d+)\\..*", "$1"));
  }

  private static Optional<String> numberIn(byte[] serverInfo) {
    try {
      Properties info = new Properties();
      info.load(new ByteArrayInputStream(serverInfo));
      return Optional.ofNullable(info.getProperty("server.number"));
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  private static Traits traits(String version, Optional<String> tomee) {
    int major = Integer.parseInt(version.substring(0, version.indexOf('.')));
    return new Traits(
        tomee.map(own -> "TomEE " + own).orElse("Tomcat " + version),
        Set.of(ArtifactKind.WAR, ArtifactKind.EXECUTABLE_WAR),
        major >= FIRST_JAKARTA ? ServletNamespace.JAKARTA : ServletNamespace.JAVAX,
        major > FIRST_JAKARTA ? 17 : major == FIRST_JAKARTA ? 11 : 8,
        Set.of(Swap.LIVE, Swap.RESTART),
        new Traits.Folders(
            List.of("logs", "temp", "work"),
            List.of("bin", "conf", "lib", "webapps", "webapps-admin", "webapps-javaee"),
            TomcatLogs.USUAL),
        tomee.isPresent() ? TOMEE : TOMCAT,
        Set.of(Feature.HOSTS, Feature.HTTPS, Feature.ADMIN_LISTENER));
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return new InstanceFiles(files, server, access).pieces();
  }

  @Override
  public Optional<SelfDescription> describe(HostFiles files, Stock stock) {
    return Optional.of(new TomcatSelf(files, stock).description());
  }

  @Override
  public List<Question> questions() {
    return TomcatBeans.questions();
  }

  @Override
  public List<Inside> inside(Stock stock, Answers answers) {
    return new TomcatBeans(answers.beans(), ServerXml.of(stock).listeners()).applications();
  }

  @Override
  public List<Wanted.Refused> contradictions(Stock stock) {
    ServerXml configuration = ServerXml.of(stock);
    Ports ports = stock.server().ports();
    return Stream.of(
            configuration.contradiction(ports.http(), "http"),
            ports
                .https()
                .map(Https::port)
                .flatMap(port -> configuration.contradiction(port, "https")),
            ports.admin().flatMap(port -> configuration.contradiction(port, "admin")),
            Printed.unreadable(stock),
            Tomee.leavesTraces(stock, configuration))
        .flatMap(Optional::stream)
        .toList();
  }

  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    if (wish instanceof Wish.Users users) {
      return new OwnUsers(files, stock).overhaul(users.change());
    }
    if (wish instanceof Wish.AsDescribed described) {
      return new Described(files, stock, described).overhaul();
    }
    return new Hardening(files, stock, (Wish.Hardened) wish).overhaul();
  }

  @Override
  public List<ServerUser> users(HostFiles files, Stock stock) {
    return new OwnUsers(files, stock).all();
  }

  @Override
  public List<Path> reads(Server server) {
    return TomcatProcesses.readAtStart(server);
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    Stream<Path> listed =
        ServerXml.in(server, texts).map(ServerXml::listeners).stream()
            .flatMap(List::stream)
            .flatMap(listener -> Stream.of(listener.descriptors(), listener.applications()));
    return Stream.concat(listed, Stream.of(server.log(TomcatLogs.USUAL).getParent())).toList();
  }

  /** Debian's packages give a server's own folder to root, and that of its applications to it. */
  @Override
  public Path owned(Server server, Map<Path, byte[]> texts) {
    return ServerXml.in(server, texts)
        .flatMap(ServerXml::main)
        .map(Listener::applications)
        .filter(applications -> applications.startsWith(server.folder()))
        .orElse(server.folder());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    List<Occupant> occupants = new ArrayList<>();
    for (Listener listener : ServerXml.of(stock).listeners()) {
      for (Path file : stock.children().getOrDefault(listener.descriptors(), List.of())) {
        if (file.toString().endsWith(".xml")) {
          occupants.add(occupant(listener, file, true));
        }
      }
      for (Path file : stock.children().getOrDefault(listener.applications(), List.of())) {
        occupants.add(occupant(listener, file, file.toString().endsWith(".war")));
      }
    }
    return occupants;
  }

  private static Occupant occupant(Listener listener, Path file, boolean extension) {
    String name = file.getFileName().toString();
    String base = extension ? Delivered.baseName(file) : name;
    boolean described = listener.descriptors().equals(file.getParent());
    return new Occupant(
        listener.label(), ContextNames.pathOf(base), file, described || !listener.ignores(name));
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new TomcatPlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    return new TomcatLog(evidence.log()).sign(placement, expected, evidence);
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return file.endsWith(ServerXml.NAME) ? Optional.of(new HostSplicer()) : Optional.empty();
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    return file.toString().endsWith(".xml") ? ContextDescriptor.secretsIn(text) : Map.of();
  }

  @Override
  public KindProcesses processes() {
    return new TomcatProcesses();
  }

  @Override
  public KindLogs logs() {
    return new TomcatLogs();
  }
}
