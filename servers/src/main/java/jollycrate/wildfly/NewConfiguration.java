package jollycrate.wildfly;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.hosting.ShippedXml;
import jollycrate.server.Placement;
import jollycrate.xml.XmlElement;

/**
 * The configuration of a new instance, made of the one that WildFly ships: nothing listens but the
 * two listeners, users stand in files of their own with salted hashes, no data source is there by
 * itself, and everything that is printed goes one way.
 */
final class NewConfiguration {
  /** The server of the web container that everybody's requests come to, as it ships. */
  static final String MAIN_SERVER = "default-server";

  /** Folder of users, from the server's own on. */
  static final String USERS = "users";

  private static final String REALM = "ApplicationRealm";

  /** Elements that go, all of them. */
  private static final List<String> GONE =
      List.of(
          "management-interfaces",
          "remoting-connector",
          "datasource",
          "periodic-rotating-file-handler",
          "properties-realm",
          "tls",
          "https-listener",
          "http-invoker",
          "location");

  /** Elements that go by the beginnings of their names. */
  private static final Map<String, List<String>> GONE_BY_NAME =
      Map.of(
          "handler", List.of("FILE"),
          "driver", List.of("h2"),
          "security-domain", List.of("ManagementDomain"),
          "http-authentication-factory", List.of("management-"),
          "sasl-authentication-factory", List.of("management-"),
          "file", List.of("welcome-content"));

  /** What needs the management interface. */
  private static final List<String> GONE_PARTS = List.of("health", "metrics");

  private static final String ADMIN_LISTENER =
      "<server name=\"%1$s\" default-host=\"%1$s\"><http-listener name=\"%1$s\""
          + " socket-binding=\"%1$s\" enabled=\"${jolly.admin:false}\"/>"
          + "<host name=\"%1$s\"/></server>";
  private static final String ADMIN_INTERFACE =
      "<interface name=\"%s\"><inet-address value=\"127.0.0.1\"/></interface>";
  private static final String ADMIN_BINDING =
      "<socket-binding name=\"%1$s\" interface=\"%1$s\" port=\"${jolly.admin.port:0}\"/>";
  private static final String USERS_REALM =
      "<filesystem-realm name=\"%s\" levels=\"0\"><file path=\"%s\""
          + " relative-to=\"jboss.server.base.dir\"/></filesystem-realm>";

  private final ShippedXml xml;

  private NewConfiguration(byte[] shipped) {
    this.xml = new ShippedXml("standalone.xml", shipped);
  }

  /** The text, of the one that ships. */
  static byte[] of(byte[] shipped) {
    return new NewConfiguration(shipped).text();
  }

  private byte[] text() {
    GONE.forEach(name -> xml.remove(xml.all(name)));
    GONE_BY_NAME.forEach(
        (element, names) ->
            xml.remove(xml.named(element, name -> names.stream().anyMatch(name::startsWith))));
    for (String part : GONE_PARTS) {
      xml.remove(xml.with("extension", "module", module -> module.endsWith("." + part)));
      xml.remove(subsystem(part));
    }
    xml.without(xml.all("default-bindings"), "datasource");
    xml.without(xml.all("http-listener"), "redirect-socket");
    xml.set(xml.all("named-formatter"), "name", "PATTERN");
    xml.set(xml.all("deployment-scanner"), "scan-interval", "500");
    xml.set(xml.all("deployment-scanner"), "deployment-timeout", "3600");
    xml.set(subsystem("undertow"), "statistics-enabled", "true");
    String admin = Placement.ADMIN;
    xml.behind(xml.named("server", MAIN_SERVER::equals), ADMIN_LISTENER.formatted(admin));
    xml.append(xml.all("interfaces"), ADMIN_INTERFACE.formatted(admin));
    xml.append(xml.all("socket-binding-group"), ADMIN_BINDING.formatted(admin));
    xml.append(xml.all("security-realms"), USERS_REALM.formatted(REALM, USERS));
    return xml.text();
  }

  private Stream<XmlElement> subsystem(String part) {
    return xml.telling("subsystem", ":" + part + ":");
  }
}
