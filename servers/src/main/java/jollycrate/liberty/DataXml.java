package jollycrate.liberty;

import static jollycrate.liberty.ApplicationXml.attribute;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Set;
import jollycrate.app.DataSource;
import jollycrate.file.Digests;

/**
 * The data sources of one release of an application. They stand apart from it, and under a name
 * made of what they are, so that they outlive whoever still works on them, and another password is
 * another data source.
 */
final class DataXml {
  private static final String PASSWORD = "password";
  private static final String STAMP = "{stamp}";

  private final String application;
  private final StringBuilder xml = new StringBuilder("<server>\n");

  DataXml(String application, Set<Path> drivers) {
    this.application = application;
    xml.append("  <library").append(attribute("id", library())).append(">\n");
    drivers.forEach(
        driver ->
            xml.append("    <file").append(attribute("name", driver.toString())).append("/>\n"));
    xml.append("  </library>\n");
  }

  private String library() {
    return application + " drivers " + STAMP;
  }

  /** What the names of all data sources of an application begin with, where they are bound. */
  static String names(String application) {
    return "jolly/" + application + "/";
  }

  void add(DataSource source, String driver, String password) {
    xml.append("  <dataSource")
        .append(attribute("id", place(source)))
        .append(attribute("jndiName", place(source)))
        .append(">\n    <jdbcDriver")
        .append(attribute("libraryRef", library()))
        .append(attribute("java.sql.Driver", driver))
        .append("/>\n    <connectionManager minPoolSize=\"0\"")
        .append(attribute("maxPoolSize", "" + source.most()))
        .append(attribute("connectionTimeout", source.patience().toMillis() + "ms"))
        .append("/>\n    <properties")
        .append(attribute("url", source.url()));
    if (!source.user().isEmpty()) {
      xml.append(attribute("user", source.user())).append(attribute(PASSWORD, password));
    }
    xml.append("/>\n  </dataSource>\n");
  }

  private String place(DataSource source) {
    return names(application) + STAMP + "/" + source.jndiName();
  }

  /** Where a data source is bound, so that no other application finds it by accident. */
  String boundAt(DataSource source) {
    return place(source).replace(STAMP, stamp());
  }

  String stamp() {
    return Digests.brief(Digests.of(xml.toString().getBytes(StandardCharsets.UTF_8)));
  }

  String text() {
    return (xml + "</server>\n").replace(STAMP, stamp());
  }
}
