package jollycrate.app;

import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads one {@code [server.NAME]}. */
final class ServerSection {
  private static final Pattern SIZE = Pattern.compile("(\\d{1,6})([kKmMgG])");
  private static final Map<String, Long> UNITS =
      Map.of("k", 1_000L, "m", 1_000_000L, "g", 1_000_000_000L);

  private ServerSection() {}

  static ServerEntry read(String name, Section section, Path folder) {
    if (!name.matches(ServersFile.NAME_FORM)) {
      section.missing("folder", "'" + name + "' is no name: use letters, digits, _ and - only");
    }
    if (!section.has("folder")) {
      section.missing("folder", "Name the server's own folder");
    }
    if (!section.has("http")) {
      section.missing("http", "Give its HTTP port, like http = 8081");
    }
    Optional<Integer> http = section.number("http", 1, 65_535).map(Long::intValue);
    Optional<Integer> admin = section.number("admin", 1, 65_535).map(Long::intValue);
    if (http.isPresent() && http.equals(admin)) {
      section.problem("admin", "'http' and 'admin' are the same port", "Give another port");
    }
    Optional<Https> https = Https.read(section, folder);
    https
        .filter(
            listener ->
                http.equals(Optional.of(listener.port()))
                    || admin.equals(Optional.of(listener.port())))
        .ifPresent(
            listener ->
                section.problem("https", "another key has the same port", "Give another port"));
    Optional<String> kind = section.text("kind");
    if (kind.isEmpty() && !section.has("admin") && !section.has("installation")) {
      section.missing("admin", "Give the practice server an admin port, like admin = 8082");
    }
    Optional<Integer> beside = section.number("beside", 1, 65_535).map(Long::intValue);
    Optional<Front> front = Front.read(section.section("front"), folder);
    kind.ifPresentOrElse(
        told -> forPrograms(section, http, beside, front), () -> forOthers(section));
    Optional<String> host = section.text(ServersFile.HOST);
    host.ifPresent(told -> onAnother(section));
    Ports ports =
        new Ports(address(section), http.orElse(0), https, admin, beside)
            .reachedBy(url(section))
            .trusting(trust(section, folder));
    ServerEntry entry =
        new ServerEntry(
            name,
            host,
            folder.resolve(section.text("folder").orElse("unnamed")).normalize(),
            section.text("installation").map(at -> folder.resolve(at).normalize()),
            javax(section),
            host.map(ports::on).orElse(ports),
            Jvm.read(section, folder),
            ServerVariables.read(section, folder),
            kind,
            keeping(section),
            front,
            steering(section),
            boot(section));
    section.end();
    return entry;
  }

  /** What is meant of another machine is told by whole paths, as they are there. */
  private static void onAnother(Section section) {
    List.of("folder", "installation", "java").forEach(key -> whole(section, key));
    Section front = section.section("front");
    if (!front.isEmpty()) {
      whole(front, "config");
    }
    if (section.has("servlet-api")) {
      section.problem(
          "servlet-api",
          "the practice server of jolly's own is on this machine",
          "Remove it, or remove 'host'");
    }
    if (!section.has("installation") && !section.has("kind")) {
      section.missing("installation", "Say where it is installed there");
    }
  }

  private static void whole(Section section, String key) {
    section
        .value(key)
        .filter(String.class::isInstance)
        .map(String.class::cast)
        .filter(path -> !path.startsWith("/"))
        .ifPresent(
            path ->
                section.problem(
                    key, "'" + path + "' is no whole path there", "Write it like \"/srv/shop\""));
  }

  private static boolean javax(Section section) {
    Optional<String> api = section.text("servlet-api");
    if (api.isPresent() && section.has("installation")) {
      section.problem("servlet-api", "the installation tells that by itself", "Remove it");
    }
    api.filter(told -> !told.equals("javax") && !told.equals("jakarta"))
        .ifPresent(
            told ->
                section.problem(
                    "servlet-api", "'" + told + "' is none", "Write \"jakarta\" or \"javax\""));
    return api.filter("javax"::equals).isPresent();
  }

  private static String address(Section section) {
    String address = section.text("address").orElse(ServersFile.LOOPBACK);
    String host = address.contains(":") ? "[" + address + "]" : address;
    if (WebAddress.hostOf("http://" + host + "/").isEmpty()) {
      section.problem(
          "address",
          "'" + address + "' is no address to bind",
          "Write an IP address like \"127.0.0.1\", or \"0.0.0.0\" for all");
      return ServersFile.LOOPBACK;
    }
    return address;
  }

  /** By which address people reach it: a whole one, without a path. */
  private static Optional<Path> trust(Section section, Path folder) {
    Optional<Path> trust = section.text("trust").map(at -> folder.resolve(at).normalize());
    trust
        .filter(file -> !Files.isReadable(file))
        .ifPresent(
            file ->
                section.problem(
                    "trust",
                    "Cannot read '" + file + "'",
                    "Name a file with certificates in PEM, beside this one"));
    return trust;
  }

  private static Optional<URI> url(Section section) {
    Optional<String> url = section.text("url");
    Optional<URI> read = url.flatMap(WebAddress::origin);
    if (url.isPresent() && read.isEmpty()) {
      section.problem(
          "url",
          "'" + url.get() + "' is no address of a server",
          "Write scheme, name and port without a path, like \"https://shop.example\"");
    }
    return read;
  }

  private static void forPrograms(
      Section section, Optional<Integer> http, Optional<Integer> beside, Optional<Front> front) {
    for (String key :
        List.of(
            "admin", "https", "installation", "log", "servlet-api", "start", "unit", "user-unit")) {
      if (section.has(key)) {
        section.problem(key, "a server whose 'kind' is told has no '" + key + "'", "Remove it");
      }
    }
    if (beside.isPresent() && beside.equals(http)) {
      section.problem("beside", "'http' and 'beside' are the same port", "Give another port");
    }
    if (front.isPresent() && beside.isEmpty()) {
      section.missing(
          "beside", "Give the port on which a new release comes up, like beside = 8092");
    }
    if (front.isPresent() && section.has("url")) {
      section.problem(
          "url", "people reach it by the web server before it", "Say it in [server.NAME.front]");
    }
    if (front.isEmpty() && beside.isPresent()) {
      section.problem(
          "beside",
          "nothing switches from one port to the other",
          "Describe the web server before it in [server.NAME.front]");
    }
  }

  private static void forOthers(Section section) {
    if (section.has("start") && section.has("boot")) {
      section.problem(
          "boot", "a unit of ours would not start it by its own 'start'", "Remove one of them");
    }
    for (String key : List.of("beside", "front", "log-size", "log-keep")) {
      if (section.has(key)) {
        section.problem(key, "only a server whose 'kind' is told has '" + key + "'", "Remove it");
      }
    }
  }

  private static Steering steering(Section section) {
    Optional<Unit> unit = unit(section, "unit", false);
    Optional<Unit> ofUser = unit(section, "user-unit", true);
    if (unit.isPresent() || ofUser.isPresent()) {
      String key = unit.isPresent() ? "unit" : "user-unit";
      for (String other :
          List.of("start", "log", "boot", unit.isPresent() ? "user-unit" : "unit")) {
        if (section.has(other)) {
          section.problem(
              other, "with '" + key + "' that is the service manager's", "Remove one of them");
        }
      }
    }
    return new Steering(
        section.text("log"), section.arguments("start"), stopPort(section), unit.or(() -> ofUser));
  }

  private static Optional<Integer> stopPort(Section section) {
    if (section.has("stop-port") && !section.has("installation")) {
      section.problem("stop-port", "the practice server has none", "Remove it");
    }
    return section.number("stop-port", 0, 65_535).map(Long::intValue);
  }

  private static Optional<Unit> unit(Section section, String key, boolean ofUser) {
    Optional<String> name = section.text(key);
    name.filter(text -> !text.matches(Unit.NAME_FORM))
        .ifPresent(
            text ->
                section.problem(
                    key, "'" + text + "' is no name of a unit", "Write it like \"tomcat9\""));
    return name.filter(text -> text.matches(Unit.NAME_FORM)).map(text -> new Unit(text, ofUser));
  }

  private static Keeping keeping(Section section) {
    long releases =
        section.number("earlier-releases", 0, 1000).orElse((long) Keeping.USUAL.releases());
    long space = size(section, "earlier-space", Keeping.USUAL.space());
    long logSize = size(section, "log-size", ServerLog.USUAL.size());
    long logFiles = section.number("log-keep", 1, 1000).orElse((long) ServerLog.USUAL.keep());
    return new Keeping(new ServerLog(logSize, (int) logFiles), (int) releases, space);
  }

  private static long size(Section section, String key, long usual) {
    Optional<String> told = section.text(key);
    Matcher matcher = SIZE.matcher(told.orElse(""));
    if (matcher.matches()) {
      return Long.parseLong(matcher.group(1))
          * UNITS.get(matcher.group(2).toLowerCase(Locale.ROOT));
    }
    told.ifPresent(
        text ->
            section.problem(key, "'" + text + "' is no size", "Write it like \"10m\" or \"500k\""));
    return usual;
  }

  private static Optional<Boot> boot(Section section) {
    Optional<String> told = section.text("boot");
    if (told.isPresent() && Boot.of(told.get()).isEmpty()) {
      section.problem(
          "boot", "'" + told.get() + "' starts nothing", "Write \"user\" or \"system\"");
    }
    return told.flatMap(Boot::of);
  }
}
