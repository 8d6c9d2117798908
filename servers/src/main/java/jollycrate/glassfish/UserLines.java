package jollycrate.glassfish;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.hosting.HashedUsers;
import jollycrate.server.PickUp;
import jollycrate.server.ServerUser;
import jollycrate.server.Splicer;

/**
 * The file of users, which a GlassFish reads when it starts: a line for each, with his name, hash
 * and roles. A key is a name.
 */
final class UserLines implements Splicer {
  private static final String BETWEEN = ";";

  static String line(HashedUsers.HashedUser user) {
    return user.name() + BETWEEN + user.hash() + BETWEEN + String.join(",", user.roles());
  }

  /** Whether a line can begin with a name. */
  static boolean canName(String user) {
    return user.matches("[\\w.@-]+");
  }

  /** Whether a line can tell a role. */
  static boolean canGive(String role) {
    return !role.contains(BETWEEN) && !role.contains(",") && role.equals(role.strip());
  }

  /** The hash that stands in a line; empty where none does. */
  static Optional<String> hash(String line) {
    return Optional.of(line.split(BETWEEN))
        .filter(parts -> parts.length > 1)
        .map(parts -> parts[1]);
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

  @Override
  public PickUp pickUp() {
    return PickUp.RESTART;
  }

  @Override
  public Optional<String> find(String text, String key) {
    return text.lines().filter(line -> isOf(line, key)).findFirst();
  }

  @Override
  public String insert(String text, String key, String fragment) {
    List<String> lines = new ArrayList<>(others(text, key).toList());
    lines.add(fragment);
    return text(lines.stream());
  }

  @Override
  public String remove(String text, String key) {
    return text(others(text, key));
  }

  private static Stream<String> others(String text, String key) {
    return text.lines().filter(line -> !isOf(line, key));
  }

  private static boolean isOf(String line, String key) {
    return line.startsWith(key + BETWEEN);
  }

  private static String text(Stream<String> lines) {
    return lines.map(line -> line + "\n").collect(Collectors.joining());
  }
}
