package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Who may log in.
 *
 * @param roles users by role
 * @param logIns how somebody logs in for checks, by name
 */
public record Access(List<User> users, Map<String, List<String>> roles, Map<String, LogIn> logIns) {
  /** Nobody. */
  public static final Access NONE = new Access(List.of(), Map.of(), Map.of());

  /** The user of that name. */
  public Optional<User> user(String name) {
    return users.stream().filter(user -> user.name().equals(name)).findFirst();
  }

  /** The same whose secrets are looked for from another folder on. */
  Access from(Path folder) {
    Map<String, LogIn> moved = new TreeMap<>();
    logIns.forEach((name, logIn) -> moved.put(name, logIn.from(folder)));
    return new Access(users.stream().map(user -> user.from(folder)).toList(), roles, moved);
  }
}
