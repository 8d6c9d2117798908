package jollycrate.jetty;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.hosting.ToldAtStart;
import jollycrate.server.Among;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;

/**
 * What the folder of a Jetty says of it: modules, properties and XML files, from {@code start.ini}
 * and the {@code .ini} files in {@code start.d}, in the order in which Jetty reads them.
 */
final class JettyBase {
  /** Connectors of one that we made. */
  static final String OUR_XML = "etc/jolly.xml";

  private static final String ENDING = ".ini";
  private static final Pattern MODULES = Pattern.compile("--(?:add-)?modules?=(.*)");
  private static final Pattern PROPERTY = Pattern.compile("(?:-D)?([\\w.-]+)([?+,]?)=(.*)");
  private static final Pattern WHOLE_NUMBER = Pattern.compile("\\d{1,5}");

  private final Server server;
  private final Map<String, Told> properties = new LinkedHashMap<>();
  private final Set<String> modules = new LinkedHashSet<>();
  private final Set<String> xmls = new LinkedHashSet<>();

  /**
   * A property.
   *
   * @param where file and line
   */
  record Told(String value, String where) {}

  JettyBase(Server server, Map<Path, byte[]> texts) {
    this.server = server;
    List<Path> files = new ArrayList<>(List.of(startIni(server)));
    texts.keySet().stream().filter(startD(server)::contains).sorted().forEach(files::add);
    for (Path file : files) {
      String text = new String(texts.getOrDefault(file, new byte[0]), StandardCharsets.UTF_8);
      List<String> lines = text.lines().map(String::strip).toList();
      for (int i = 0; i < lines.size(); i++) {
        line(lines.get(i), server.shown(file) + ":" + (i + 1));
      }
    }
  }

  static JettyBase of(Stock stock) {
    JettyBase base = new JettyBase(stock.server(), stock.texts());
    stock
        .process()
        .found()
        .filter(running -> !running.ours())
        .ifPresent(
            running ->
                running.command().stream()
                    .skip(1)
                    .forEach(argument -> base.line(argument, "its command line")));
    return base;
  }

  static Path startIni(Server server) {
    return server.folder().resolve("start.ini");
  }

  static Among startD(Server server) {
    return new Among(server.folder().resolve("start.d"), ENDING);
  }

  private void line(String line, String where) {
    Matcher named = MODULES.matcher(line);
    Matcher property = PROPERTY.matcher(line);
    if (line.startsWith("#")) {
      return;
    }
    if (named.matches()) {
      modules.addAll(List.of(named.group(1).strip().split("\\s*,\\s*")));
    } else if (line.endsWith(".xml") && !line.startsWith("-")) {
      xmls.add(line);
    } else if (property.matches()) {
      told(property.group(1), property.group(2), new Told(property.group(3).strip(), where));
    }
  }

  /** {@code ?=} counts where nothing was told before, {@code +=} and {@code ,=} add to that. */
  private void told(String name, String how, Told told) {
    switch (how) {
      case "?" -> properties.putIfAbsent(name, told);
      case "+", "," ->
          properties.merge(
              name,
              told,
              (before, more) ->
                  new Told(before.value + (how.equals(",") ? "," : "") + more.value, more.where));
      default -> properties.put(name, told);
    }
  }

  /** Whether we made it, so that its connectors have names. */
  boolean isOurs() {
    return xmls.contains(OUR_XML);
  }

  Optional<Told> property(String name) {
    return Optional.ofNullable(properties.get(name));
  }

  private String value(String name, String usual) {
    return property(name).map(Told::value).orElse(usual);
  }

  private int number(String name, int usual) {
    String value = value(name, "");
    return WHOLE_NUMBER.matcher(value).matches() ? Integer.parseInt(value) : usual;
  }

  /** Seconds between two looks at the folders for applications; 0: it looks when it starts only. */
  int interval() {
    return number("jetty.deploy.scanInterval", 0);
  }

  /** Whether a new release is started before the old one is stopped. */
  boolean startsBeside() {
    return value("jetty.deploy.atomicRedeploy", "true").equals("true");
  }

  /** Port and address of its connector for HTTP, where it is not one that we made. */
  int http() {
    return number("jetty.http.port", 8080);
  }

  String address() {
    return value("jetty.http.host", "");
  }

  /** Folders in which it looks for applications. */
  List<Path> folders() {
    List<Path> folders = new ArrayList<>();
    for (String name : value("jetty.deploy.webappsDir", "webapps").split("\\s*,\\s*")) {
      folders.add(server.folder().resolve(name).normalize());
    }
    if (isOurs()) {
      folders.add(server.folder().resolve(Environment.JAVAX_FOLDER));
    }
    return folders;
  }

  /** The environments that it serves applications in, the one that it prefers first. */
  List<Environment> environments() {
    return Environment.PREFERRED.stream()
        .filter(one -> modules.contains(one.name() + "-deploy"))
        .toList();
  }

  /** Those of them that a descriptor gets by where it stands: elsewhere the preferred one alone. */
  List<Environment> chosenByItself() {
    return isOurs() ? environments() : environments().stream().limit(1).toList();
  }

  /** Whether applications of an environment may have data sources and environment entries. */
  boolean names(Environment environment) {
    return List.of("-plus", "-annotations", "-websocket-jakarta").stream()
        .anyMatch(module -> modules.contains(environment.name() + module));
  }

  /** Where its description says what it does not do. */
  List<Wanted.Refused> contradictions() {
    return Stream.concat(
            elsewhere().stream(), ToldAtStart.contradictions("a Jetty", server).stream())
        .toList();
  }

  private Optional<Wanted.Refused> elsewhere() {
    int described = server.ports().http();
    return isOurs() || http() == described
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "port " + described,
                "the server does not listen on it: its connector for HTTP has "
                    + http()
                    + property("jetty.http.port").map(told -> " (" + told.where() + ")").orElse(""),
                "Write http = " + http() + " into servers.toml"));
  }
}
