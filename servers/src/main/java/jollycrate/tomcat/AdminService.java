package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
import jollycrate.server.Server;
import jollycrate.server.Wanted;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlElement;

/** A service of its own for administrators, in the {@code server.xml} of a server people have. */
final class AdminService {
  private static final String SERVICE = "jolly-admin";
  private static final String ENGINE = "admin";

  private final HostFiles files;
  private final Server server;
  private final ServerXml configuration;

  AdminService(HostFiles files, Server server, ServerXml configuration) {
    this.files = files;
    this.server = server;
    this.configuration = configuration;
  }

  /** Why there can be none. */
  Optional<Wanted.Refused> clash() {
    return configuration.document().root().descendants("Engine").stream()
        .filter(engine -> configuration.value(engine, "name", "").equals(ENGINE))
        .findFirst()
        .map(
            engine ->
                new Wanted.Refused(
                    configuration.where(engine),
                    "an Engine of the name '" + ENGINE + "' stands there already",
                    "Name the port of its Connector as 'admin' in servers.toml"));
  }

  /** The one that was put there for a port. */
  Optional<XmlElement> ours(int port) {
    return configuration.document().root().children("Service").stream()
        .filter(service -> service.value("name", "").equals(SERVICE))
        .filter(
            service ->
                service.child("Connector").stream()
                    .anyMatch(connector -> connector.value("port", "").equals("" + port)))
        .findFirst();
  }

  Splice removing(XmlElement service) {
    return configuration.document().removing(service);
  }

  /** Behind all other services; what Java EE applications it converts stand apart from theirs. */
  Splice adding(int port) {
    boolean converts = files.facts(server.folder().resolve("webapps-javaee")).isFolder();
    Stream<String> realm =
        configuration.main().flatMap(Listener::realm).stream()
            .flatMap(String::lines)
            .map(line -> "    " + line.strip());
    List<String> begin =
        List.of(
            "<Service name=\"" + SERVICE + "\">",
            "  <Connector port=\""
                + port
                + "\" address=\"127.0.0.1\" connectionTimeout=\"20000\"/>",
            "  <Engine name=\"" + ENGINE + "\" defaultHost=\"localhost\">");
    List<String> end =
        List.of(
            "    <Host name=\"localhost\" appBase=\"webapps-admin\""
                + (converts ? " legacyAppBase=\"webapps-admin-javaee\"" : "")
                + "/>",
            "  </Engine>",
            "</Service>");
    return configuration
        .document()
        .appending(
            configuration.document().root(),
            Stream.of(begin.stream(), realm, end.stream()).flatMap(lines -> lines).toList());
  }
}
