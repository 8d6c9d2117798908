package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
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
    Map<String, String> hashes = hashesIn(earlier);
    Map<String, String> hidden = new HashMap<>();
    hashes.values().forEach(hash -> hidden.put(hash, "(hash)"));
    StringBuilder xml = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
    xml.append("<tomcat-users>\n");
    Map<String, List<String>> roles = order.application().access().roles();
    new TreeSet<>(roles.keySet())
        .forEach(role -> xml.append("  <role rolename=\"").append(escape(role)).append("\"/>\n"));
    for (String name : new TreeSet<>(order.userPasswords().keySet())) {
      String password = order.userPasswords().get(name);
      String hash = hashes.getOrDefault(name, "");
      if (!PasswordHash.verifies(hash, password)) {
        hash = PasswordHash.of(password);
        hidden.put(hash, "(new hash)");
      }
      xml.append("  <user username=\"").append(escape(name));
      xml.append("\" password=\"").append(hash);
      xml.append("\" roles=\"").append(escape(String.join(",", rolesOf(name, roles))));
      xml.append("\"/>\n");
    }
    return new UsersXml(xml.append("</tomcat-users>\n").toString(), hidden);
  }

  private static List<String> rolesOf(String user, Map<String, List<String>> roles) {
    List<String> has = new ArrayList<>();
    roles.forEach(
        (role, members) -> {
          if (members.contains(user)) {
            has.add(role);
          }
        });
    return has;
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
