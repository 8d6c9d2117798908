package jollycrate.liberty;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.hosting.ToldAtStart;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;

/** What an Open Liberty that people have must say itself, as its configuration is theirs. */
record LibertyRules(Stock stock, LibertyBase base) {
  private static final String SERVES =
      "(webProfile|jakartaee)-(9|1\\d)\\..*|servlet-[56]\\..*" + "|servlet|webProfile|jakartaee";
  private static final String JAKARTA = "(webProfile|jakartaee)(-.*)?";
  private static final String CONSOLE = "com.ibm.ws.logging.console.";
  private static final String IN_FEATURES = " into <featureManager> of server.xml";

  static LibertyRules of(Stock stock) {
    return new LibertyRules(stock, LibertyBase.of(stock));
  }

  /** Where its description says what it does not do. */
  List<Wanted.Refused> contradictions() {
    List<Wanted.Refused> https = ToldAtStart.contradictions(LibertyKind.CALLED, stock.server());
    if (!base.isWhole()) {
      return List.of(
          new Wanted.Refused(
              stock.server().folder().toString(),
              "no server.xml that can be read stands in '" + stock.server().folder() + "'",
              "Name the folder of the server itself, below usr/servers"));
    }
    return base.isOurs()
        ? https
        : Stream.of(
                https.stream(),
                elsewhere().stream(),
                admin().stream(),
                serves().stream(),
                placed().stream(),
                printed().stream())
            .flatMap(one -> one)
            .toList();
  }

  private Optional<Wanted.Refused> elsewhere() {
    OptionalInt http = base.http();
    int described = stock.server().ports().http();
    return http.isEmpty() || http.getAsInt() == described
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "port " + described,
                "the server does not listen on it: its endpoint for HTTP has "
                    + http.getAsInt()
                    + " ("
                    + base.where()
                    + ")",
                "Write http = " + http.getAsInt() + " into servers.toml"));
  }

  private Optional<Wanted.Refused> admin() {
    return stock.server().ports().admin().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "admin",
                "an Open Liberty that you have gets no admin listener from here",
                "Take 'admin' out of servers.toml"));
  }

  /** That it serves no applications of jakarta.servlet, if it does not. */
  Optional<Wanted.Refused> serves() {
    return has(SERVES) || base.includes()
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "features",
                "none of its features serves web applications of jakarta.servlet",
                "Write <feature>webProfile-10.0</feature>" + IN_FEATURES));
  }

  private boolean has(String feature) {
    Pattern named = Pattern.compile(feature, Pattern.CASE_INSENSITIVE);
    return base.features().stream().anyMatch(one -> named.matcher(one).matches());
  }

  /** That a feature is lacking which something of an application needs, if it is. */
  Optional<Wanted.Refused> lacks(String subject, String feature, String version) {
    return base.isOurs() || has(JAKARTA) || has(feature + "(-.*)?") || base.includes()
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                subject,
                "none of this server's features brings it",
                "Write <feature>" + feature + "-" + version + "</feature>" + IN_FEATURES));
  }

  private Optional<Wanted.Refused> placed() {
    Server server = stock.server();
    return server.folder().getParent().endsWith(LibertyFiles.SERVERS)
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                server.folder().toString(),
                "an Open Liberty finds a server only in a folder that is called 'servers'",
                "Name the folder in which its server.xml stands, below usr/servers"));
  }

  /** That what it prints does not tell what becomes of applications, if it does not. */
  Optional<Wanted.Refused> printed() {
    Optional<Running> theirs = stock.process().found().filter(running -> !running.ours());
    String to =
        Stream.of(
                otherwise("consoleFormat", "format", "simple", theirs),
                otherwise("consoleLogLevel", "log.level", "info", theirs))
            .flatMap(Optional::stream)
            .collect(Collectors.joining(", "));
    String end = "'jolly server stop " + stock.server().name() + "' ends it; jolly starts it so";
    return to.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "console",
                "what it prints does not tell what becomes of applications",
                theirs.isPresent() && told("consoleFormat", "format").isEmpty()
                    ? end + ". Or " + to + ", then restart it"
                    : to));
  }

  /** What has to be written where, so that something is printed as we read it. */
  private Optional<String> otherwise(
      String attribute, String property, String wanted, Optional<Running> theirs) {
    Optional<String> told = told(attribute, property);
    if (told.map(wanted::equalsIgnoreCase).orElse(theirs.isEmpty())) {
      return Optional.empty();
    }
    boolean inXml = logging(attribute).isPresent();
    return Optional.of(
        inXml
            ? "set " + attribute + "=\"" + wanted + "\" in <logging> of server.xml"
            : "write " + CONSOLE + property + "=" + wanted + " into bootstrap.properties");
  }

  /** The configuration says it first, then a property; else whoever starts it does. */
  private Optional<String> told(String attribute, String property) {
    return logging(attribute).or(() -> base.bootstrap(CONSOLE + property));
  }

  private Optional<String> logging(String attribute) {
    return base.all("logging")
        .map(logging -> logging.value(attribute, ""))
        .filter(told -> !told.isEmpty())
        .findFirst();
  }
}
