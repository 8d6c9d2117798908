package jollycrate.liberty;

import java.util.HashMap;
import java.util.Map;
import jollycrate.secret.Secrets;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What people must not see in a piece of configuration. */
final class LibertySecrets {
  /** The beginning of the id of an environment entry whose value is secret. */
  static final String ENTRY = "secret/";

  private static final String PASSWORD = "password";

  private LibertySecrets() {}

  /** Such values, with what people see instead; none in a piece that somebody broke. */
  static Map<String, String> in(byte[] piece) {
    Map<String, String> secrets = new HashMap<>();
    try {
      XmlElement root = XmlDocument.parse("piece", piece).root();
      root.descendants("user").forEach(user -> secrets.put(user.value(PASSWORD, ""), "(hash)"));
      root.descendants("properties")
          .forEach(data -> secrets.put(data.value(PASSWORD, ""), Secrets.HIDDEN));
      root.descendants("env-entry").stream()
          .filter(entry -> entry.value("id", "").startsWith(ENTRY))
          .forEach(entry -> secrets.put(entry.value("value", ""), Secrets.HIDDEN));
    } catch (XmlException broken) {
      return Map.of();
    }
    return secrets;
  }
}
