package jollycrate.glassfish;

import java.nio.charset.StandardCharsets;
import jollycrate.app.DataSource;
import jollycrate.xml.XmlDocument;

/**
 * {@code WEB-INF/glassfish-resources.xml}: the data sources of one application, which come and go
 * with it and which no other finds.
 */
final class ResourcesXml {
  static final String PATH = "WEB-INF/glassfish-resources.xml";

  /** It reads none without that, and takes the definition from its own installation. */
  private static final String HEAD =
      "<!DOCTYPE resources PUBLIC \"-//GlassFish.org//DTD GlassFish Application Server 3.1 Resource"
          + " Definitions//EN\" \"http://glassfish.org/dtds/glassfish-resources_1_5.dtd\">\n"
          + "<resources>\n";

  private static final String OF_APPLICATION = "java:app/";

  private final StringBuilder xml = new StringBuilder(HEAD);

  /** Where one is bound. */
  static String boundAt(DataSource source) {
    return OF_APPLICATION + source.jndiName();
  }

  void add(DataSource source, String driverClass, String password) {
    String pool = OF_APPLICATION + "pool/" + source.jndiName();
    tag("  <jdbc-connection-pool", "name", pool, "res-type", "java.sql.Driver");
    tag("", "driver-classname", driverClass, "steady-pool-size", "0");
    tag("", "max-pool-size", "" + source.most());
    tag("", "max-wait-time-in-millis", "" + source.patience().toMillis());
    xml.append(">\n");
    property("URL", source.url());
    if (!source.user().isEmpty()) {
      property("user", source.user());
      property("password", password);
    }
    xml.append("  </jdbc-connection-pool>\n");
    tag("  <jdbc-resource", "pool-name", pool, "jndi-name", boundAt(source));
    xml.append("/>\n");
  }

  private void property(String name, String value) {
    tag("    <property", "name", name, "value", value);
    xml.append("/>\n");
  }

  private void tag(String begin, String... attributes) {
    xml.append(begin);
    for (int i = 0; i < attributes.length; i += 2) {
      xml.append(' ').append(attributes[i]).append("=\"");
      xml.append(XmlDocument.escape(attributes[i + 1])).append('"');
    }
  }

  byte[] text() {
    return (xml + "</resources>\n").getBytes(StandardCharsets.UTF_8);
  }
}
