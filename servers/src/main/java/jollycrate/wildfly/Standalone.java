package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.ToldAtStart;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * What the configuration of a WildFly says: where it listens and what it deploys. That of one which
 * people have is theirs, and stays as it is.
 */
final class Standalone {
  private static final String OURS = "${jolly.admin.port";
  private static final String NAME = "name";
  private static final String BINDING = "socket-binding";
  private static final String USUAL_BINDING = "http";

  /** It looks when it starts only. */
  private static final int USUAL_INTERVAL = 0;

  private static final String BASE = "jboss.server.base.dir";

  private final Server server;
  private final Optional<XmlDocument> document;
  private final Optional<List<String>> theirs;
  private final Map<String, String> properties;

  private Standalone(Server server, Optional<XmlDocument> document, Optional<List<String>> theirs) {
    this.server = server;
    this.document = document;
    this.theirs = theirs;
    this.properties =
        new GivenArguments(theirs.orElseGet(() -> server.runtime().jvm().options())).properties();
  }

  /** With what its process was given, where somebody else started that; else as it is described. */
  static Standalone of(Stock stock) {
    Optional<List<String>> theirs =
        stock.process().found().filter(running -> !running.ours()).map(Running::command);
    return new Standalone(stock.server(), parsed(stock.server(), stock.texts()), theirs);
  }

  /** As it is described. */
  static Standalone of(Server server, Map<Path, byte[]> texts) {
    return new Standalone(server, parsed(server, texts), Optional.empty());
  }

  private static Optional<XmlDocument> parsed(Server server, Map<Path, byte[]> texts) {
    try {
      return Optional.ofNullable(texts.get(Configuration.file(server)))
          .map(bytes -> XmlDocument.parse("standalone.xml", bytes));
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  /** Whether we made it, so that it is told where to listen when it is started. */
  boolean isOurs() {
    return document.filter(text -> text.text().contains(OURS)).isPresent();
  }

  /** Whether it stands there and can be read. */
  boolean isWhole() {
    return document.isPresent();
  }

  private Stream<XmlElement> all(String element) {
    return document.stream().flatMap(text -> text.root().descendants(element).stream());
  }

  private Optional<XmlElement> named(String element, String name) {
    return all(element).filter(found -> found.value(NAME, "").equals(name)).findFirst();
  }

  private Optional<XmlElement> listener() {
    return named("server", NewConfiguration.MAIN_SERVER)
        .flatMap(main -> main.descendants("http-listener").stream().findFirst());
  }

  private Optional<XmlElement> binding() {
    String name = listener().map(one -> one.value(BINDING, "")).orElse(USUAL_BINDING);
    return named(BINDING, name);
  }

  /**
   * Something else that it listens on.
   *
   * @param what it is called there
   * @param bound port and address
   * @param where file and line
   */
  record Open(String what, String bound, String where) {}

  /** Every other listener of its web container, and what it is managed by. */
  List<Open> others() {
    Stream<String> secure = all("https-listener").map(one -> one.value(BINDING, ""));
    Stream<String> management =
        all("management-interfaces")
            .flatMap(one -> one.descendants(BINDING).stream())
            .flatMap(one -> Stream.of(one.value("http", ""), one.value("https", "")));
    return Stream.concat(secure, management)
        .filter(name -> !name.isEmpty())
        .distinct()
        .flatMap(name -> named(BINDING, name).stream())
        .map(found -> new Open(found.value(NAME, ""), told(found), place(found)))
        .toList();
  }

  private String told(XmlElement binding) {
    OptionalInt port = number(new Expression(binding.value("port", "")));
    OptionalInt offset = offset();
    boolean known = port.isPresent() && offset.isPresent();
    return (known ? port.getAsInt() + offset.getAsInt() : "?")
        + " on "
        + boundBy(binding).map(told -> told.value(properties)).orElse("?");
  }

  private String place(XmlElement element) {
    return shown() + ":" + document.orElseThrow().lineOf(element.start());
  }

  /** Where that of its port stands: file and line. */
  String where() {
    return Stream.of(binding(), document.map(XmlDocument::root))
        .flatMap(Optional::stream)
        .findFirst()
        .map(this::place)
        .orElse(shown());
  }

  private String shown() {
    return server.shown(Configuration.file(server));
  }

  private Expression port() {
    return new Expression(binding().map(found -> found.value("port", "")).orElse(""));
  }

  private OptionalInt offset() {
    return all("socket-binding-group")
        .map(group -> group.value("port-offset", "0"))
        .findFirst()
        .map(told -> number(new Expression(told)))
        .orElse(OptionalInt.of(0));
  }

  /** Port of its listener for HTTP; empty where that cannot be told. */
  OptionalInt http() {
    OptionalInt port = number(port());
    OptionalInt offset = offset();
    return port.isPresent() && offset.isPresent()
        ? OptionalInt.of(port.getAsInt() + offset.getAsInt())
        : OptionalInt.empty();
  }

  private OptionalInt number(Expression told) {
    String value = told.value(properties).strip();
    return value.matches("-?\\d{1,9}")
        ? OptionalInt.of(Integer.parseInt(value))
        : OptionalInt.empty();
  }

  /** What it binds; empty where that cannot be told. */
  private Optional<Expression> bound() {
    return binding().flatMap(this::boundBy);
  }

  private Optional<Expression> boundBy(XmlElement binding) {
    String usual =
        all("socket-binding-group")
            .findFirst()
            .map(group -> group.value("default-interface", ""))
            .orElse("");
    String name = binding.value("interface", usual);
    return named("interface", name)
        .flatMap(found -> found.child("inet-address"))
        .map(found -> new Expression(found.value("value", "")));
  }

  /** The address that it binds; empty where that cannot be told. */
  String address() {
    return bound().map(told -> told.value(properties)).filter(told -> !told.isEmpty()).orElse("");
  }

  /** What tells its process where to listen, as its description says, where it lets itself. */
  List<String> toldAtStart() {
    Map<String, String> told = new HashMap<>();
    port()
        .property()
        .filter(name -> offset().isPresent())
        .ifPresent(name -> told.put(name, "" + (server.ports().http() - offset().getAsInt())));
    bound()
        .flatMap(Expression::property)
        .ifPresent(name -> told.put(name, server.ports().address()));
    return told.entrySet().stream()
        .sorted(Map.Entry.comparingByKey())
        .map(property -> "-D" + property.getKey() + "=" + property.getValue())
        .toList();
  }

  private Optional<XmlElement> scanner() {
    return all("deployment-scanner").findFirst();
  }

  /** Milliseconds between two looks at the folder; 0: it looks when it starts only. */
  int interval() {
    return scanner()
        .map(found -> number(new Expression(found.value("scan-interval", ""))))
        .orElse(OptionalInt.empty())
        .orElse(USUAL_INTERVAL);
  }

  /** What it deploys. */
  ArchivesIn archives() {
    String folder = scanner().map(found -> found.value("path", "")).orElse(Instance.DEPLOYMENTS);
    return new ArchivesIn(server.folder().resolve(folder).normalize(), "ROOT");
  }

  /** The name of the host of its main listener that answers by a name; empty where none does. */
  Optional<String> host(String name) {
    return all("host")
        .filter(
            host ->
                host.value(NAME, "").equals(name)
                    || List.of(host.value("alias", "").split("[\\s,]+")).contains(name))
        .map(host -> host.value(NAME, ""))
        .findFirst();
  }

  /** The two files of its realm for users of applications; empty where it keeps them elsewhere. */
  Optional<PropertiesRealm> realm() {
    return PropertiesRealm.among(all("properties-realm"), server);
  }

  /** The address of its management interface, where not only loopback reaches that. */
  Optional<String> management() {
    return named("interface", "management")
        .flatMap(found -> found.child("inet-address"))
        .map(found -> new Expression(found.value("value", "")).value(properties))
        .filter(address -> !address.startsWith("127.") && !address.equals("::1"))
        .filter(address -> !address.equals("localhost"));
  }

  /** Where its description says what it does not do. */
  List<Wanted.Refused> contradictions() {
    List<Wanted.Refused> https = ToldAtStart.contradictions(WildflyKind.CALLED, server);
    if (!isWhole()) {
      return List.of(
          new Wanted.Refused(
              server.folder().toString(),
              "no configuration/standalone.xml that can be read stands in '"
                  + server.folder()
                  + "'",
              "Name the folder that holds it, like WILDFLY/standalone"));
    }
    return isOurs()
        ? https
        : Stream.of(https.stream(), elsewhere().stream(), admin().stream(), unseen().stream())
            .flatMap(one -> one)
            .toList();
  }

  private Optional<Wanted.Refused> elsewhere() {
    OptionalInt http = http();
    int described = server.ports().http();
    boolean canBeTold = port().property().isPresent() && theirs.isEmpty();
    return canBeTold || http.isEmpty() || http.getAsInt() == described
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "port " + described,
                "the server does not listen on it: its listener for HTTP has "
                    + http.getAsInt()
                    + " ("
                    + where()
                    + ")",
                "Write http = " + http.getAsInt() + " into servers.toml"));
  }

  private Optional<Wanted.Refused> admin() {
    return server.ports().admin().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "admin",
                "a WildFly that you have gets no admin listener from here",
                "Take 'admin' out of servers.toml"));
  }

  /** That it does not deploy what is put there, if it does not. */
  Optional<Wanted.Refused> unseen() {
    boolean looks =
        scanner()
            .filter(
                found ->
                    !found.value("scan-enabled", "true").equals("false")
                        && !found.value("auto-deploy-zipped", "true").equals("false")
                        && found.value("relative-to", BASE).equals(BASE))
            .isPresent();
    return looks
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                shown(),
                "it deploys no archives that are put into a folder of its own, so nothing can be"
                    + " delivered",
                "Enable its deployment-scanner, with path=\"deployments\" and"
                    + " relative-to=\"jboss.server.base.dir\""));
  }
}
