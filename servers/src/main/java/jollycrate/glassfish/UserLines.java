package jollycrate.glassfish;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.LineSplicer;
import jollycrate.server.PickUp;
import jollycrate.server.ServerUser;

/**
 * The file of users, which a GlassFish reads when it starts: a line for each, with his name, hash
 * and roles. A key is a name.
 */
final class UserLines extends LineSplicer {
  private static final String BETWEEN = ";";

  static String line(HashedUsers.HashedUser user) {
    return user.name() + BETWEEN + user.hash() + BETWEEN + String.join(",", user.roles());
  }

  /** The hash that stands in a line; empty where none does. */
  static Optional<String> hash(String line) {
    return Optional.of(line.split(BETWEEN))
        .filter(parts -> parts.length > 1)
        .map(parts -> parts[1]);
  }

  /** Hashes in such a text, with what people see instead. */
  static Map<String, String> secretsIn(String text) {
    return HashedUsers.shown(text.lines().flatMap(line -> hash(line).stream()).toList());
  }

  /** Everybody. */
  static List<ServerUser> all(String text, String shown) {
    return text.lines()
        .filter(line -> hash(line).isPresent())
        .map(line -> line.split(BETWEEN))
        .map(
            parts ->
                new ServerUser(
                    parts[0],
                    parts.length > 2 ? List.of(parts[2].split(",")) : List.of(),
                    "salted hash, quick to guess",
                    shown))
        .toList();
  }

  UserLines() {
    super(BETWEEN);
  }

  @Override
  public PickUp pickUp() {
    return PickUp.RESTART;
  }
}
