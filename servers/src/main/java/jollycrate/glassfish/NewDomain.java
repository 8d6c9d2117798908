package jollycrate.glassfish;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.hosting.ShippedXml;
import jollycrate.xml.XmlElement;

/**
 * The configuration of a new instance, made of the one that GlassFish ships: nothing listens but
 * one listener for HTTP, and no data source is there by itself.
 */
final class NewDomain {
  private static final String LISTENER = "http-listener-1";
  private static final String SECURE_LISTENER = "http-listener-2";
  private static final String VALUE = "value";
  private static final String ENABLED = "enabled";
  private static final String ID = "id";
  private static final String ROOT = "${com.sun.aas.instanceRoot}";

  private static final String USERS = ROOT + "/config/users";
  private static final String TIMERS = ROOT + "/databases/ejbtimer";

  /** Those of nobody; without any, applications would wait for one to start. */
  private static final String MESSAGES = "<jms-service type=\"REMOTE\" default-jms-host=\"none\"/>";

  private static final String DEPLOYING =
      "<das-config autodeploy-dir=\""
          + ROOT
          + "/../"
          + GlassfishFiles.DEPLOYMENTS
          + "\" autodeploy-polling-interval-in-seconds=\"1\" dynamic-reload-enabled=\"false\"/>";

  /** Elements that go, by their names. */
  private static final Map<String, List<String>> GONE =
      Map.of(
          "protocol", List.of(SECURE_LISTENER),
          "network-listener", List.of(SECURE_LISTENER),
          "jdbc-connection-pool", List.of("DerbyPool"));

  private static final String DEFAULT_SOURCE = "jdbc/__default";

  private NewDomain() {}

  /** The text, of the one that ships. */
  static byte[] of(byte[] shipped) {
    ShippedXml xml = new ShippedXml("domain.xml", oneConfiguration(shipped));
    GONE.forEach((element, names) -> xml.remove(xml.named(element, names::contains)));
    xml.remove(xml.with("jdbc-resource", "jndi-name", DEFAULT_SOURCE::equals));
    xml.remove(xml.with("resource-ref", "ref", DEFAULT_SOURCE::equals));
    xml.remove(xml.all("iiop-listener"));
    xml.behind(xml.all("http-service"), MESSAGES);
    xml.set(xml.all("jmx-connector"), ENABLED, "false");
    xml.behind(xml.all("jmx-connector"), DEPLOYING);
    xml.set(properties(xml.named("auth-realm", "file"::equals), "file"), VALUE, USERS);
    xml.set(
        properties(xml.named("jdbc-connection-pool", "__TimerPool"::equals), "databaseName"),
        VALUE,
        TIMERS);
    Stream.of("address", "port")
        .forEach(
            told ->
                xml.set(
                    xml.named("network-listener", LISTENER::equals),
                    told,
                    "${jolly." + told + "}"));
    xml.set(xml.with("virtual-server", ID, "server"::equals), "network-listeners", LISTENER);
    withoutAdministration(xml);
    return xml.text();
  }

  /** Without the pattern of those for further servers. */
  private static byte[] oneConfiguration(byte[] shipped) {
    ShippedXml xml = new ShippedXml("domain.xml", shipped);
    xml.remove(xml.named("config", "default-config"::equals));
    return xml.text();
  }

  /**
   * Its listener stays, and stays closed: where it is not there, the main one answers what
   * administers the server, and asks nobody who he is.
   */
  private static void withoutAdministration(ShippedXml xml) {
    xml.set(xml.named("network-listener", "admin-listener"::equals), ENABLED, "false");
    xml.remove(xml.with("virtual-server", ID, "__asadmin"::equals));
  }

  private static Stream<XmlElement> properties(Stream<XmlElement> elements, String name) {
    return elements
        .flatMap(element -> element.children("property").stream())
        .filter(property -> property.value("name", "").equals(name));
  }
}
