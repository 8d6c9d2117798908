package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.HostFiles;
import jollycrate.hosting.Delivered;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;

/** What Apache TomEE adds to the Tomcat that it is. */
final class Tomee {
  /** Begins the enterprise part with the server; it has to stand before every other listener. */
  static final String LISTENER = "org.apache.tomee.catalina.ServerListener";

  /**
   * Where it unpacks archives that stand outside of the folder for applications: else beside each,
   * where they stay for ever.
   */
  static final String UNPACKS_IN = "tomee.unpack.dir";

  /** Where one does that we start. */
  static final String USUALLY_UNPACKS_IN = "work/unpacked";

  private static final Pattern UNPACKS =
      Pattern.compile(Pattern.quote(UNPACKS_IN) + "\\s*[=:]\\s*(\\S+)");

  /** Files of its installation that a server of its own needs, too, in its folder for settings. */
  private static final List<String> FILES = List.of("tomee.xml", "system.properties");

  private static final Pattern ARCHIVE = Pattern.compile("tomee-catalina-(\\d[^/]*)\\.jar");
  private static final Pattern SERVICE =
      Pattern.compile("openejb-(cxf|cxf-rs|hsql)-\\d[^/]*\\.jar");
  private static final String DEFAULTS = "META-INF/org.apache.openejb.server.ServerService/";
  private static final String OPTIONS = "conf/system.properties";
  private static final String FIRST_LISTENER = "  <Listener ";
  private static final int MOST_BYTES = 16 << 20;

  private final HostFiles files;
  private final Path installation;

  Tomee(HostFiles files, Path installation) {
    this.files = files;
    this.installation = installation;
  }

  /** Where the archives are by which an installation is known. */
  static Path libraries(Path installation) {
    return installation.resolve("lib");
  }

  private List<Path> libraries() {
    return files.list(libraries(installation));
  }

  /** Its version; empty for an installation of Tomcat alone. */
  Optional<String> version() {
    return libraries().stream()
        .map(file -> ARCHIVE.matcher(file.getFileName().toString()))
        .filter(Matcher::matches)
        .map(name -> name.group(1))
        .findFirst();
  }

  /**
   * What keeps one from delivering without a trace; empty for Tomcat alone, and where it unpacks in
   * a folder of its own: we tell it so when we start it, its own scripts do not.
   */
  static Optional<Wanted.Refused> leavesTraces(Stock stock, ServerXml configuration) {
    boolean told = stock.text(options(stock.server())).flatMap(Tomee::unpacksIn).isPresent();
    boolean byUs =
        !stock.server().steering().hasItsOwn()
            && stock.process().found().map(Running::ours).orElse(true);
    return configuration.isTomee() && !told && !byUs
        ? Optional.of(
            new Wanted.Refused(
                OPTIONS,
                "TomEE unpacks what is delivered beside it, and leaves that there for ever",
                "Write "
                    + UNPACKS_IN
                    + " = "
                    + USUALLY_UNPACKS_IN
                    + " into "
                    + stock.server().shown(options(stock.server()))
                    + ", and start it anew"))
        : Optional.empty();
  }

  /**
   * Where it unpacks an archive; empty for a place outside of the server's folder, where nothing is
   * taken away.
   *
   * @param options text of its own options, where there are any
   */
  static Optional<Path> unpacked(Path folder, Optional<String> options, Path archive) {
    String name = Delivered.baseName(archive);
    String place = options.flatMap(Tomee::unpacksIn).orElse(USUALLY_UNPACKS_IN);
    return Optional.of(folder.resolve(place).resolve(name).normalize())
        .filter(path -> path.startsWith(folder));
  }

  static Path options(Server server) {
    return server.folder().resolve(OPTIONS);
  }

  /** Where its own options say that it unpacks. */
  private static Optional<String> unpacksIn(String options) {
    return options
        .lines()
        .map(line -> UNPACKS.matcher(line.strip()))
        .filter(Matcher::matches)
        .map(line -> line.group(1))
        .findFirst();
  }

  /** A server.xml in which it begins with the server. */
  static String begun(String serverXml) {
    return serverXml.replaceFirst(
        FIRST_LISTENER, "  <Listener className=\"" + LISTENER + "\"/>\n" + FIRST_LISTENER);
  }

  /** Files in the folder for settings, by name: its own, and those that it would write itself. */
  Map<String, byte[]> settings() {
    Map<String, byte[]> settings = new TreeMap<>();
    for (String name : FILES) {
      settings.put(name, files.read(installation.resolve("conf").resolve(name), 0, MOST_BYTES));
    }
    for (Path library : libraries()) {
      Matcher service = SERVICE.matcher(library.getFileName().toString());
      if (service.matches()) {
        new InstalledJar(files, library)
            .entry(DEFAULTS + service.group(1))
            .ifPresent(text -> settings.put("conf.d/" + service.group(1) + ".properties", text));
      }
    }
    return settings;
  }
}
