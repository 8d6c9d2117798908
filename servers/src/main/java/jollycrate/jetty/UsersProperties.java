package jollycrate.jetty;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;
import jollycrate.hosting.HashedUsers;
import jollycrate.pack.PropertiesText;

/** The users of one application: a property for each, the hash and then the roles. */
final class UsersProperties {
  private static final String COMMA = ",";

  private UsersProperties() {}

  static String of(HashedUsers users) {
    Map<String, String> lines = new TreeMap<>();
    users
        .users()
        .forEach(
            user ->
                lines.put(
                    user.name(),
                    user.roles().isEmpty()
                        ? user.hash()
                        : user.hash() + COMMA + String.join(COMMA, user.roles())));
    return PropertiesText.of(lines);
  }

  /** Hashes in such a text, with what people see instead. */
  static Map<String, String> secretsIn(byte[] text) {
    return HashedUsers.shown(hashesIn(new String(text, StandardCharsets.UTF_8)).values());
  }

  /** Hashes in such a text, by user. */
  static Map<String, String> hashesIn(String text) {
    Properties properties = new Properties();
    try {
      properties.load(new StringReader(text));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (IllegalArgumentException damaged) {
      return Map.of();
    }
    Map<String, String> hashes = new HashMap<>();
    properties.forEach((name, told) -> hashes.put("" + name, told.toString().split(COMMA)[0]));
    return hashes;
  }
}
