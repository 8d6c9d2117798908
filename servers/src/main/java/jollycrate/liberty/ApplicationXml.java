package jollycrate.liberty;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.app.Ports;
import jollycrate.server.Placement;
import jollycrate.xml.XmlDocument;

/** The piece of configuration that is one application, with the names that it finds things by. */
final class ApplicationXml {
  private static final int HTTP = 80;
  private static final int HTTPS = 443;

  private final String application;
  private final StringBuilder before = new StringBuilder();
  private final StringBuilder bound = new StringBuilder();
  private final StringBuilder roles = new StringBuilder();

  ApplicationXml(String application) {
    this.application = application;
  }

  void dataSource(String name, String boundAt) {
    bound
        .append("      <resource-ref")
        .append(attribute("name", name))
        .append(attribute("binding-name", boundAt))
        .append("/>\n");
  }

  /**
   * An environment entry.
   *
   * @param secret whether people must not see its value
   */
  void entry(String name, String value, boolean secret) {
    bound.append("      <env-entry");
    if (secret) {
      bound.append(attribute("id", LibertySecrets.ENTRY + application + "/" + name));
    }
    bound.append(attribute("name", name)).append(attribute("value", value)).append("/>\n");
  }

  /** A virtual host of its own, by the name that it is asked by. */
  void host(String name, Ports ports) {
    before
        .append("  <virtualHost")
        .append(attribute("id", name))
        .append(" allowFromEndpointRef=\"defaultHttpEndpoint\">");
    Stream.of(ports.http(), LibertyProcesses.publicPort(ports), HTTP, HTTPS)
        .distinct()
        .forEach(
            port ->
                before
                    .append("<hostAlias>")
                    .append(XmlDocument.escape(name + ":" + port))
                    .append("</hostAlias>"));
    before.append("</virtualHost>\n");
  }

  void answersAt(String listener) {
    String host = listener.equals(Placement.MAIN) ? "default_host" : listener;
    bound.append("      <virtual-host").append(attribute("name", host)).append("/>\n");
  }

  void roles(Map<String, List<String>> users) {
    users.forEach(
        (role, names) -> {
          roles.append("      <security-role").append(attribute("name", role)).append(">");
          names.forEach(name -> roles.append("<user").append(attribute("name", name)).append("/>"));
          roles.append("</security-role>\n");
        });
  }

  /**
   * The text.
   *
   * @param stamp of what it finds elsewhere: with another one the server starts it anew
   */
  byte[] text(String contextPath, Path archive, String stamp) {
    String text =
        "<server>\n"
            + before
            + "  <webApplication"
            + attribute("id", application)
            + attribute("name", application)
            + attribute("contextRoot", contextPath.isEmpty() ? "/" : contextPath)
            + attribute("location", archive.toString())
            + ">\n    <application-bnd>\n"
            + roles
            + "    </application-bnd>\n    <appProperties><property"
            + attribute("name", "jolly.stamp")
            + attribute("value", stamp)
            + "/></appProperties>\n    <web-bnd>\n"
            + bound
            + "    </web-bnd>\n  </webApplication>\n</server>\n";
    return text.getBytes(StandardCharsets.UTF_8);
  }

  static String attribute(String name, String value) {
    return " " + name + "=\"" + XmlDocument.escape(value) + "\"";
  }
}
