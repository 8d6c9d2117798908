package jollycrate.tomcat;

import jollycrate.app.DataSource;
import jollycrate.secret.Secrets;
import jollycrate.xml.XmlDocument;

/** A data source as a resource of a context. */
final class DataSourceXml {
  /** What Tomcat replaces in attributes, whatever stands between the braces. */
  static final String EXPANDED = "${";

  private static final String NEXT_LINE = "\n            ";

  private DataSourceXml() {}

  /**
   * The element. A password reaches the driver unchanged: Tomcat would expand {@code ${...}} in an
   * attribute, so such a password goes in as a connection property, whose text is read as a
   * properties file with its own escapes.
   */
  static String of(DataSource source, String driverClass, String password) {
    StringBuilder xml = new StringBuilder("<Resource");
    attribute(xml, " ", "name", source.jndiName());
    attribute(xml, " ", "auth", "Container");
    attribute(xml, " ", "type", "javax.sql.DataSource");
    attribute(xml, NEXT_LINE, "driverClassName", driverClass);
    attribute(xml, NEXT_LINE, "url", source.url());
    if (!source.user().isEmpty()) {
      attribute(xml, NEXT_LINE, "username", source.user());
    }
    if (password.contains(EXPANDED)) {
      String property = "password=" + Secrets.unicodeEscaped(password);
      attribute(xml, NEXT_LINE, "connectionProperties", property);
    } else {
      attribute(xml, NEXT_LINE, "password", password);
    }
    attribute(xml, NEXT_LINE, "maxTotal", String.valueOf(source.most()));
    attribute(xml, " ", "maxWaitMillis", String.valueOf(source.patience().toMillis()));
    return xml.append("/>").toString();
  }

  private static void attribute(StringBuilder xml, String gap, String name, String value) {
    xml.append(gap).append(name).append("=\"").append(XmlDocument.escape(value)).append('"');
  }
}
