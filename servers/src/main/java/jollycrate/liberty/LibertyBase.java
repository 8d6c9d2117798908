package jollycrate.liberty;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Properties;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * What the files of an Open Liberty say of it. One that we made keeps its only server in the folder
 * {@code servers}; of one that people have, the folder is that of the server itself.
 */
final class LibertyBase {
  private static final String CONFIGURATION = "server.xml";
  private static final String BOOTSTRAP = "bootstrap.properties";
  private static final String JVM_OPTIONS = "jvm.options";
  private static final String ENVIRONMENT = "server.env";
  private static final String DROPINS = "configDropins/overrides";
  private static final String ID = "id";
  private static final String USUAL_PORT = "9080";
  private static final String USUAL_SECURE_PORT = "9443";
  private static final String USUAL_HOST = "localhost";
  private static final Pattern VARIABLE = Pattern.compile("\\$\\{([^}]+)\\}");

  private final Server server;
  private final Map<Path, byte[]> texts;
  private final Path main;
  private final Optional<XmlDocument> configuration;

  LibertyBase(Server server, Map<Path, byte[]> texts) {
    this.server = server;
    this.texts = texts;
    Path ours = LibertyFiles.main(server);
    this.main = texts.containsKey(ours.resolve(CONFIGURATION)) ? ours : server.folder();
    this.configuration = parsed(main.resolve(CONFIGURATION));
  }

  static LibertyBase of(Stock stock) {
    return new LibertyBase(stock.server(), stock.texts());
  }

  /** Files that say something of one, whoever made it. */
  static List<Path> reads(Server server) {
    return Stream.of(LibertyFiles.main(server), server.folder())
        .flatMap(
            folder ->
                Stream.of(CONFIGURATION, BOOTSTRAP, JVM_OPTIONS, ENVIRONMENT).map(folder::resolve))
        .toList();
  }

  /** Where pieces of its configuration may stand. */
  static List<Path> allDropins(Server server) {
    return Stream.of(LibertyFiles.main(server), server.folder())
        .map(folder -> folder.resolve(DROPINS))
        .toList();
  }

  private Optional<XmlDocument> parsed(Path file) {
    try {
      return Optional.ofNullable(texts.get(file))
          .map(bytes -> XmlDocument.parse(CONFIGURATION, bytes));
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  /** Whether we made it, so that it is told where to listen when it is started. */
  boolean isOurs() {
    return !main.equals(server.folder());
  }

  /** Whether its configuration stands there and can be read. */
  boolean isWhole() {
    return configuration.isPresent();
  }

  /** Where pieces of its configuration are put. */
  Path dropins() {
    return main.resolve(DROPINS);
  }

  /** Files that it reads when it starts; further changes of the first one are noticed, too. */
  List<Path> readAtStart() {
    return List.of(main.resolve(CONFIGURATION), main.resolve(BOOTSTRAP));
  }

  /** Options of Java that its own script would add. */
  List<String> jvmOptions() {
    return lines(JVM_OPTIONS);
  }

  /** Variables that its own script would set. */
  Map<String, String> environment() {
    Map<String, String> variables = new TreeMap<>();
    lines(ENVIRONMENT).stream()
        .filter(line -> line.indexOf('=') > 0)
        .forEach(
            line ->
                variables.put(
                    line.substring(0, line.indexOf('=')), line.substring(line.indexOf('=') + 1)));
    return variables;
  }

  private List<String> lines(String file) {
    return text(file)
        .lines()
        .map(String::strip)
        .filter(line -> !line.isEmpty() && !line.startsWith("#"))
        .toList();
  }

  private String text(String file) {
    byte[] bytes = texts.getOrDefault(main.resolve(file), new byte[0]);
    return new String(bytes, StandardCharsets.UTF_8);
  }

  /** Elements of its configuration. */
  Stream<XmlElement> all(String element) {
    return configuration.stream().flatMap(xml -> xml.root().descendants(element).stream());
  }

  /** Whether more of its configuration stands in files that are not read here. */
  boolean includes() {
    return all("include").findAny().isPresent();
  }

  /** The features that it is told to have. */
  List<String> features() {
    return all("feature").map(feature -> feature.text().strip()).toList();
  }

  private Optional<XmlElement> endpoint() {
    return all("httpEndpoint")
        .filter(found -> found.value(ID, "").equals("defaultHttpEndpoint"))
        .findFirst();
  }

  /** Where that of its listener for HTTP stands: file and line. */
  String where() {
    String shown = server.shown(main.resolve(CONFIGURATION));
    return endpoint()
        .map(found -> shown + ":" + configuration.orElseThrow().lineOf(found.start()))
        .orElse(shown);
  }

  /** Port of its listener for HTTP; empty where that cannot be told. */
  OptionalInt http() {
    return port("httpPort", USUAL_PORT);
  }

  /** Port of its listener for HTTPS; empty where it is to have none, or that cannot be told. */
  OptionalInt https() {
    return port("httpsPort", USUAL_SECURE_PORT);
  }

  private OptionalInt port(String attribute, String usual) {
    String told = endpoint().map(found -> found.value(attribute, usual)).orElse(usual);
    return resolved(told)
        .filter(port -> port.matches("\\d{1,5}"))
        .map(port -> OptionalInt.of(Integer.parseInt(port)))
        .orElse(OptionalInt.empty());
  }

  /** The address that it binds; empty where that cannot be told. */
  String address() {
    String told = endpoint().map(found -> found.value("host", USUAL_HOST)).orElse(USUAL_HOST);
    return resolved(told)
        .map(
            host ->
                switch (host) {
                  case "*" -> "0.0.0.0";
                  case USUAL_HOST -> "127.0.0.1";
                  default -> host;
                })
        .orElse("");
  }

  /** A value whose variables are told by its own files. */
  private Optional<String> resolved(String told) {
    Matcher variable = VARIABLE.matcher(told);
    if (!variable.matches()) {
      return Optional.of(told.strip()).filter(value -> !value.contains("${"));
    }
    String name = variable.group(1);
    return all("variable")
        .filter(found -> found.value("name", "").equals(name))
        .map(found -> found.value("value", found.value("defaultValue", "")))
        .filter(value -> !value.isEmpty())
        .findFirst()
        .or(() -> bootstrap(name));
  }

  /** A property that is told before the configuration is read. */
  Optional<String> bootstrap(String name) {
    try {
      Properties properties = new Properties();
      properties.load(new StringReader(text(BOOTSTRAP)));
      return Optional.ofNullable(properties.getProperty(name)).map(String::strip);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (IllegalArgumentException malformed) {
      return Optional.empty();
    }
  }

  /** Whether changes of its configuration are noticed while it runs. */
  boolean looks() {
    return all("config")
        .map(config -> config.value("updateTrigger", "polled"))
        .noneMatch(trigger -> !trigger.equals("polled"));
  }

  /** The registry that its users are added to; empty where they are kept elsewhere. */
  Optional<String> registry() {
    List<XmlElement> others =
        Stream.of("quickStartSecurity", "ldapRegistry", "federatedRepository", "safRegistry")
            .flatMap(this::all)
            .toList();
    List<XmlElement> basic = all("basicRegistry").toList();
    if (!others.isEmpty() || basic.size() > 1) {
      return Optional.empty();
    }
    return basic.isEmpty()
        ? Optional.of(UserXml.REGISTRY)
        : Optional.of(basic.get(0).value(ID, "")).filter(id -> !id.isEmpty());
  }
}
