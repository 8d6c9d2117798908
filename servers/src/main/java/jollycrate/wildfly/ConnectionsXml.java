package jollycrate.wildfly;

import java.nio.charset.StandardCharsets;
import jollycrate.app.DataSource;
import jollycrate.xml.XmlDocument;

/**
 * The data sources of one application, as they stand in its archive: they come and go with it, and
 * no other application finds them by accident.
 */
final class ConnectionsXml {
  static final String PATH = "WEB-INF/jolly-ds.xml";

  private static final String HEAD =
      "<datasources xmlns=\"http://www.jboss.org/ironjacamar/schema\">\n";

  private final String application;
  private final StringBuilder xml = new StringBuilder(HEAD);

  ConnectionsXml(String application) {
    this.application = application;
  }

  /** Where one is bound. */
  String boundAt(DataSource source) {
    return "java:jboss/datasources/" + application + "/" + source.jndiName();
  }

  void add(DataSource source, String driver, String password) {
    xml.append("  <datasource jndi-name=\"")
        .append(XmlDocument.escape(boundAt(source)))
        .append("\" pool-name=\"")
        .append(XmlDocument.escape(application + " " + source.jndiName()))
        .append("\">\n");
    line("connection-url", source.url());
    line("driver", driver);
    xml.append("    <pool><min-pool-size>0</min-pool-size><max-pool-size>")
        .append(source.most())
        .append("</max-pool-size></pool>\n");
    if (!source.user().isEmpty()) {
      xml.append("    <security>\n");
      line("user-name", source.user());
      if (!password.isEmpty()) {
        line("password", password);
      }
      xml.append("    </security>\n");
    }
    xml.append("    <timeout><blocking-timeout-millis>")
        .append(source.patience().toMillis())
        .append("</blocking-timeout-millis></timeout>\n  </datasource>\n");
  }

  private void line(String element, String value) {
    xml.append("    <").append(element).append('>').append(XmlDocument.escape(value));
    xml.append("</").append(element).append(">\n");
  }

  /** Whether a value reaches the pool as it is: blanks around it do not, nor does an expression. */
  static boolean keeps(String value) {
    return value.equals(value.strip()) && !value.contains("${");
  }

  byte[] text() {
    return (xml + "</datasources>\n").getBytes(StandardCharsets.UTF_8);
  }
}
