package jollycrate.tomcat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.host.HostException;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What {@code conf/server.xml} says, with the properties in it replaced as Tomcat does. */
final class ServerXml {
  /** Tomcat's own default for the background processor's delay. */
  private static final int DEFAULT_DELAY_SECONDS = 10;

  static final String NAME = "conf/server.xml";

  /** The word that stops a server as it ships. */
  private static final String USUAL_WORD = "SHUTDOWN";

  private static final Set<String> LOOPBACK = Set.of("127.0.0.1", "::1", "localhost");

  private final Server server;
  private final XmlDocument document;
  private final Expansion expansion;

  /**
   * A connector for HTTP.
   *
   * @param port empty when it depends on something that is not known
   * @param address empty: every address
   * @param where file and line
   */
  record Connector(
      XmlElement element, OptionalInt port, String address, boolean tls, String where) {}

  private ServerXml(Server server, byte[] bytes, Expansion expansion) {
    this.server = server;
    this.document = XmlDocument.parse(NAME, bytes);
    this.expansion = expansion;
  }

  /** That of a server; empty when there is none, or none that can be read. */
  static Optional<ServerXml> in(Server server, Map<Path, byte[]> texts) {
    try {
      return read(server, texts, List.of());
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  private static Optional<ServerXml> read(
      Server server, Map<Path, byte[]> texts, List<String> arguments) {
    return Optional.ofNullable(texts.get(file(server)))
        .map(bytes -> new ServerXml(server, bytes, Expansion.of(server, texts, arguments)));
  }

  /**
   * That of a server.
   *
   * @throws HostException when there is none, or none that can be read
   */
  static ServerXml of(Stock stock) {
    List<String> arguments =
        stock.process().found().map(running -> running.command()).orElse(List.of());
    try {
      return read(stock.server(), stock.texts(), arguments)
          .orElseThrow(() -> unusable(stock.server(), "there is no " + NAME));
    } catch (XmlException e) {
      throw unusable(stock.server(), e.getMessage());
    }
  }

  private static HostException unusable(Server server, String why) {
    return new HostException("Cannot use '" + server.folder() + "' as a server's folder: " + why);
  }

  static Path file(Server server) {
    return server.folder().resolve(NAME);
  }

  /** The file as it is written. */
  XmlDocument document() {
    return document;
  }

  /** Whether a TomEE begins with it. */
  boolean isTomee() {
    return document.root().children("Listener").stream()
        .anyMatch(listener -> listener.value("className", "").equals(Tomee.LISTENER));
  }

  /** A path as it starts from the server's folder. */
  Path inFolder(String path) {
    return server.folder().resolve(path).normalize();
  }

  /** The listener for everybody, that for administrators, and virtual hosts. */
  List<Listener> listeners() {
    return Stream.concat(
            Stream.of(main(), admin()).flatMap(Optional::stream), virtualHosts().stream())
        .toList();
  }

  /** Hosts for everybody that are asked by a name of their own. */
  private List<Listener> virtualHosts() {
    return mainEngine().stream()
        .flatMap(
            engine ->
                engine.children("Host").stream()
                    .filter(host -> !host(engine).equals(Optional.of(host)))
                    .map(host -> listener(nameOf(host), engine, host)))
        .toList();
  }

  /** The host that answers by a name; empty when there is none of that name. */
  Optional<Listener> virtualHost(String name) {
    Optional<XmlElement> usual = mainEngine().flatMap(this::host);
    if (usual.filter(host -> answersTo(host, name)).isPresent()) {
      return main();
    }
    return mainEngine().stream()
        .flatMap(engine -> engine.children("Host").stream())
        .filter(host -> answersTo(host, name))
        .findFirst()
        .flatMap(host -> mainEngine().map(engine -> listener(nameOf(host), engine, host)));
  }

  private boolean answersTo(XmlElement host, String name) {
    return nameOf(host).equals(name)
        || host.children("Alias").stream().anyMatch(alias -> alias.text().equalsIgnoreCase(name));
  }

  private String nameOf(XmlElement host) {
    return value(host, "name", "").toLowerCase(Locale.ENGLISH);
  }

  /** The engine behind the port for everybody, by its name as it is written. */
  Optional<XmlElement> mainEngine() {
    return mainService().flatMap(service -> service.child("Engine"));
  }

  /** The host for everybody. */
  Optional<XmlElement> mainHost() {
    return mainEngine().flatMap(this::host);
  }

  /** The port at which a word stops the server, with that word. */
  record StopPort(int port, String word, String where) {
    /** Whether everybody knows the word. */
    boolean isUsual() {
      return word.equals(USUAL_WORD);
    }
  }

  /** The port that stops it; empty when it has none. */
  Optional<StopPort> stopPort() {
    XmlElement root = document.root();
    return Optional.of(value(root, "port", ""))
        .filter(port -> port.matches("\\d{1,5}"))
        .map(
            port -> new StopPort(Integer.parseInt(port), value(root, "shutdown", ""), where(root)));
  }

  /** Where applications are served to everybody: behind the port that is described. */
  Optional<Listener> main() {
    return mainService().flatMap(service -> listener(Placement.MAIN, service));
  }

  private Optional<XmlElement> mainService() {
    return behind(server.ports().http())
        .or(() -> document.root().descendants("Service").stream().findFirst());
  }

  /** Where applications for administrators are served. */
  Optional<Listener> admin() {
    return server
        .ports()
        .admin()
        .flatMap(this::behind)
        .flatMap(service -> listener(Placement.ADMIN, service));
  }

  /** Whether anything behind the admin port says who may log in. */
  boolean adminKnowsUsers() {
    return server.ports().admin().flatMap(this::behind).stream()
        .anyMatch(service -> !service.descendants("Realm").isEmpty());
  }

  /** Whether one service answers at both ports, so that nothing on it is kept apart. */
  boolean servesBoth() {
    Optional<XmlElement> main = behind(server.ports().http());
    return main.isPresent() && main.equals(server.ports().admin().flatMap(this::behind));
  }

  private Optional<XmlElement> behind(int port) {
    return document.root().descendants("Service").stream()
        .filter(
            service ->
                connectors(service).stream()
                    .anyMatch(connector -> connector.port().equals(OptionalInt.of(port))))
        .findFirst();
  }

  /** Connectors of the admin listener that whoever reaches the machine reaches. */
  List<Connector> openAdministration() {
    return server.ports().admin().stream()
        .flatMap(
            port ->
                connectors().stream()
                    .filter(connector -> connector.port().equals(OptionalInt.of(port))))
        .filter(connector -> !LOOPBACK.contains(connector.address()))
        .toList();
  }

  /** Every connector for HTTP. */
  List<Connector> connectors() {
    return document.root().descendants("Service").stream()
        .flatMap(service -> connectors(service).stream())
        .toList();
  }

  /**
   * Why the server will not listen on a port that is described; empty when it will, or when a
   * connector's port is not known.
   *
   * @param key of the port in servers.toml
   */
  Optional<Wanted.Refused> contradiction(int port, String key) {
    List<Connector> connectors = connectors();
    boolean known = connectors.stream().allMatch(connector -> connector.port().isPresent());
    boolean there =
        connectors.stream().anyMatch(found -> found.port().equals(OptionalInt.of(port)));
    if (there || !known) {
      return Optional.empty();
    }
    String others =
        connectors.stream()
            .map(found -> found.port().getAsInt() + " (" + found.where() + ")")
            .collect(Collectors.joining(", "));
    return Optional.of(
        new Wanted.Refused(
            "port " + port,
            "the server does not listen on it: conf/server.xml has "
                + (others.isEmpty() ? "no connector for HTTP" : others),
            fix(key, connectors)));
  }

  private String fix(String key, List<Connector> connectors) {
    if (!key.equals("http")) {
      return "'jolly server change " + server.name() + "' puts one there";
    }
    return connectors.size() == 1
        ? "Write http = " + connectors.get(0).port().getAsInt() + " into servers.toml"
        : "Fix 'http' in servers.toml";
  }

  private List<Connector> connectors(XmlElement service) {
    List<Connector> connectors = new ArrayList<>();
    for (XmlElement connector : service.children("Connector")) {
      if (!value(connector, "protocol", "HTTP/1.1").toUpperCase(Locale.ROOT).contains("AJP")) {
        String port = value(connector, "port", "");
        connectors.add(
            new Connector(
                connector,
                port.matches("\\d{1,5}")
                    ? OptionalInt.of(Integer.parseInt(port))
                    : OptionalInt.empty(),
                value(connector, "address", ""),
                value(connector, "SSLEnabled", "false").equals("true"),
                where(connector)));
      }
    }
    return connectors;
  }

  private Optional<Listener> listener(String label, XmlElement service) {
    return service
        .child("Engine")
        .flatMap(engine -> host(engine).map(host -> listener(label, engine, host)));
  }

  private Optional<XmlElement> host(XmlElement engine) {
    List<XmlElement> hosts = engine.children("Host");
    String standard = value(engine, "defaultHost", "localhost");
    return hosts.stream()
        .filter(host -> value(host, "name", "").equalsIgnoreCase(standard))
        .findFirst()
        .or(() -> hosts.stream().findFirst());
  }

  private Listener listener(String label, XmlElement engine, XmlElement host) {
    String name = value(engine, "name", "Catalina");
    Path descriptors =
        Path.of("conf", name).resolve(value(host, "name", "localhost").toLowerCase(Locale.ENGLISH));
    return new Listener(
        label,
        name,
        server.folder().resolve(value(host, "xmlBase", descriptors.toString())).normalize(),
        server.folder().resolve(value(host, "appBase", "webapps")).normalize(),
        value(host, "autoDeploy", "true").equals("true"),
        value(host, "deployOnStartup", "true").equals("true"),
        interval(engine, host),
        value(host, "deployIgnore", ""),
        engine.child("Realm").map(realm -> text(realm)));
  }

  /** A host may look by itself, else its engine does for it. */
  private Duration interval(XmlElement engine, XmlElement host) {
    int seconds =
        Stream.of(host, engine)
            .map(element -> value(element, "backgroundProcessorDelay", ""))
            .filter(value -> value.matches("[1-9]\\d{0,3}"))
            .findFirst()
            .map(Integer::parseInt)
            .orElse(DEFAULT_DELAY_SECONDS);
    return Duration.ofSeconds(seconds);
  }

  private String text(XmlElement element) {
    return document.text().substring(element.start(), element.end());
  }

  /** File and line of an element. */
  String where(XmlElement element) {
    return NAME + ":" + document.lineOf(element.start());
  }

  /** Value of an attribute, with the properties in it replaced. */
  String value(XmlElement element, String attribute, String otherwise) {
    return expansion.of(element.value(attribute, otherwise));
  }
}
