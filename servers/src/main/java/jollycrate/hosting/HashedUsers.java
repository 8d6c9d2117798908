package jollycrate.hosting;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import jollycrate.server.Order;

/**
 * The users of one application, with salted hashes in place of their passwords.
 *
 * @param hidden hashes, with what people see instead
 */
public record HashedUsers(List<HashedUser> users, Map<String, String> hidden) {

  /** One of them. */
  public record HashedUser(String name, String hash, List<String> roles) {}

  /**
   * Users of an order; a hash that verifies is kept.
   *
   * @param earlier hashes that stand, by name
   * @param hashing in which form they are kept
   */
  public static HashedUsers of(Order order, Map<String, String> earlier, Hashing hashing) {
    Map<String, String> hidden = new HashMap<>();
    earlier.values().forEach(hash -> hidden.put(hash, "(hash)"));
    List<HashedUser> users = new ArrayList<>();
    for (String name : new TreeSet<>(order.userPasswords().keySet())) {
      String password = order.userPasswords().get(name);
      String hash = earlier.getOrDefault(name, "");
      if (!hashing.verifies(hash, password)) {
        hash = hashing.of(password);
        hidden.put(hash, "(new hash)");
      }
      users.add(new HashedUser(name, hash, rolesOf(name, order)));
    }
    return new HashedUsers(List.copyOf(users), hidden);
  }

  private static List<String> rolesOf(String user, Order order) {
    return order.application().access().roles().entrySet().stream()
        .filter(role -> role.getValue().contains(user))
        .map(Map.Entry::getKey)
        .toList();
  }
}
