package jollycrate.tomcat;

import java.util.HashMap;
import java.util.Map;
import java.util.TreeSet;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.PasswordHash;
import jollycrate.server.Order;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * The users of one application, in a file of their own that its MemoryRealm reads.
 *
 * @param hidden hashes, with what people see instead
 */
record UsersXml(String text, Map<String, String> hidden) {

  /**
   * Users of an order; a hash that verifies is kept.
   *
   * @param earlier text of the file that stands, empty for none
   */
  static UsersXml of(Order order, String earlier) {
    HashedUsers users = HashedUsers.of(order, hashesIn(earlier), PasswordHash.HASHING);
    StringBuilder xml = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
    xml.append("<tomcat-users>\n");
    new TreeSet<>(order.application().access().roles().keySet())
        .forEach(role -> xml.append("  <role rolename=\"").append(escape(role)).append("\"/>\n"));
    for (HashedUsers.HashedUser user : users.users()) {
      xml.append("  <user username=\"").append(escape(user.name()));
      xml.append("\" password=\"").append(user.hash());
      xml.append("\" roles=\"").append(escape(String.join(",", user.roles())));
      xml.append("\"/>\n");
    }
    return new UsersXml(xml.append("</tomcat-users>\n").toString(), users.hidden());
  }

  private static Map<String, String> hashesIn(String earlier) {
    Map<String, String> hashes = new HashMap<>();
    if (!earlier.isEmpty()) {
      for (XmlElement user : XmlDocument.parse("users", earlier).root().children("user")) {
        hashes.put(user.value("username", ""), user.value("password", ""));
      }
    }
    return hashes;
  }

  private static String escape(String value) {
    return XmlDocument.escape(value);
  }
}
