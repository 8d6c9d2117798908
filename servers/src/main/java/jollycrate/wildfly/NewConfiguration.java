package jollycrate.wildfly;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Stream;
import jollycrate.server.Placement;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
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

  private static final String NAME = "name";
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

  private final XmlDocument document;
  private final XmlElement root;
  private final List<Splice> splices = new ArrayList<>();

  private NewConfiguration(byte[] shipped) {
    this.document = XmlDocument.parse("standalone.xml", shipped);
    this.root = document.root();
  }

  /** The text, of the one that ships. */
  static byte[] of(byte[] shipped) {
    return new NewConfiguration(shipped).text();
  }

  private byte[] text() {
    GONE.forEach(name -> remove(root.descendants(name).stream()));
    GONE_BY_NAME.forEach(
        (element, names) ->
            remove(named(element, name -> names.stream().anyMatch(name::startsWith))));
    for (String part : GONE_PARTS) {
      remove(named("extension", "module", module -> module.endsWith("." + part)));
      remove(subsystem(part));
    }
    without("default-bindings", "datasource");
    without("http-listener", "redirect-socket");
    set("named-formatter", NAME, "PATTERN");
    set("deployment-scanner", "scan-interval", "500");
    set("deployment-scanner", "deployment-timeout", "3600");
    subsystem("undertow")
        .forEach(web -> splices.add(document.setting(web, "statistics-enabled", "true")));
    String admin = Placement.ADMIN;
    named("server", MAIN_SERVER::equals)
        .forEach(
            server ->
                splices.add(document.behind(server, List.of(ADMIN_LISTENER.formatted(admin)))));
    append("interfaces", ADMIN_INTERFACE.formatted(admin));
    append("socket-binding-group", ADMIN_BINDING.formatted(admin));
    append("security-realms", USERS_REALM.formatted(REALM, USERS));
    return document.with(splices).bytes();
  }

  private Stream<XmlElement> named(String element, Predicate<String> name) {
    return named(element, NAME, name);
  }

  private Stream<XmlElement> named(String element, String attribute, Predicate<String> value) {
    return root.descendants(element).stream().filter(one -> value.test(one.value(attribute, "")));
  }

  private Stream<XmlElement> subsystem(String part) {
    return root.descendants("subsystem").stream()
        .filter(
            one -> document.text().substring(one.start(), one.tagEnd()).contains(":" + part + ":"));
  }

  private void remove(Stream<XmlElement> elements) {
    elements.forEach(element -> splices.add(document.removing(element)));
  }

  private void without(String element, String attribute) {
    for (XmlElement one : root.descendants(element)) {
      String others =
          one.startTag(
              one.attributes().stream().filter(told -> !told.name().equals(attribute)).toList());
      splices.add(new Splice(one.start(), one.tagEnd(), others));
    }
  }

  private void set(String element, String attribute, String value) {
    root.descendants(element).forEach(one -> splices.add(document.setting(one, attribute, value)));
  }

  private void append(String element, String line) {
    root.descendants(element).forEach(one -> splices.add(document.appending(one, List.of(line))));
  }
}
