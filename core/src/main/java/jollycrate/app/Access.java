package jollycrate.app;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Who may log in.
 *
 * @param roles users by role
 */
public record Access(List<User> users, Map<String, List<String>> roles) {
  /** Nobody. */
  public static final Access NONE = new Access(List.of(), Map.of());

  /** The user of that name. */
  public Optional<User> user(String name) {
    return users.stream().filter(user -> user.name().equals(name)).findFirst();
  }
}
