package jollycrate.wildfly;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.UserFiles;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * A user in the form of WildFly's realm that keeps each in a file of its own, and reads that at
 * each log-in.
 */
final class IdentityXml {
  private IdentityXml() {}

  static UserFiles files(Server server) {
    return new UserFiles(
        server.folder().resolve(NewConfiguration.USERS),
        "",
        IdentityXml::text,
        IdentityXml::hash,
        IdentityXml::roles);
  }

  private static String text(HashedUsers.HashedUser user) {
    StringBuilder xml = new StringBuilder("<identity xmlns=\"urn:elytron:identity:1.2\">\n");
    xml.append("  <credentials><password format=\"crypt\">")
        .append(XmlDocument.escape(user.hash()))
        .append("</password></credentials>\n  <attributes>\n");
    for (String role : user.roles()) {
      xml.append("    <attribute name=\"groups\" value=\"")
          .append(XmlDocument.escape(role))
          .append("\"/>\n");
    }
    return xml.append("  </attributes>\n</identity>\n").toString();
  }

  /** The hash in such a text, with what people see instead. */
  static Map<String, String> secretsIn(String text) {
    return HashedUsers.shown(hash(text).stream().toList());
  }

  private static Optional<String> hash(String text) {
    return elements(text, "password").map(XmlElement::text).findFirst();
  }

  private static List<String> roles(String text) {
    return elements(text, "attribute").map(role -> role.value("value", "")).toList();
  }

  private static Stream<XmlElement> elements(String text, String name) {
    try {
      return XmlDocument.parse("identity", text).root().descendants(name).stream();
    } catch (XmlException damaged) {
      return Stream.empty();
    }
  }
}
