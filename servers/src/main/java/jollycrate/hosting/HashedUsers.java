package jollycrate.hosting;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.BinaryOperator;
import java.util.stream.Collectors;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;

/**
 * The users of one application, with salted hashes in place of their passwords.
 *
 * @param hidden hashes, with what people see instead
 */
public record HashedUsers(List<HashedUser> users, Map<String, String> hidden) {

  /** One of them. */
  public record HashedUser(String name, String hash, List<String> roles) {
    /** Whether he fits into a line with his roles, between characters that mean something there. */
    boolean fitsLine() {
      return name.matches("[\\w.@-]+")
          && roles.stream().allMatch(role -> role.matches("[^,;]+") && role.equals(role.strip()));
    }
  }

  /** Hashes, with what people see instead. */
  public static Map<String, String> shown(Collection<String> hashes) {
    return hashes.stream()
        .filter(hash -> !hash.isEmpty())
        .distinct()
        .collect(Collectors.toMap(hash -> hash, HashedUsers::label));
  }

  /** What is short, or written in words, is a password as it is. */
  private static String label(String stored) {
    return stored.matches("\\S{24,}") ? "(hash)" : Secrets.HIDDEN;
  }

  /**
   * Refuses those who do not fit into a line.
   *
   * @param kind that keeps users so, as in the middle of a sentence
   */
  public void refuseOdd(String kind, Refusals refusals) {
    users.stream()
        .filter(user -> !user.fitsLine())
        .forEach(
            user ->
                refusals.refuse(
                    user.name(),
                    kind
                        + " knows users by letters, digits and _ . @ - alone, and roles without"
                        + " commas and semicolons",
                    "Take another name"));
  }

  /**
   * Users of an order; a hash that verifies is kept.
   *
   * @param earlier hashes that stand, by name
   * @param hashing in which form they are kept
   */
  public static HashedUsers of(Order order, Map<String, String> earlier, Hashing hashing) {
    Map<String, String> hidden = new HashMap<>();
    hidden.putAll(shown(earlier.values()));
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

  /**
   * Users of an order, kept by digests that are the same each time.
   *
   * @param digest of a user's name and password
   */
  public static HashedUsers of(Order order, BinaryOperator<String> digest) {
    List<HashedUser> users =
        order.userPasswords().entrySet().stream()
            .sorted(Map.Entry.comparingByKey())
            .map(
                user ->
                    new HashedUser(
                        user.getKey(),
                        digest.apply(user.getKey(), user.getValue()),
                        rolesOf(user.getKey(), order)))
            .toList();
    return new HashedUsers(
        users,
        users.stream().collect(Collectors.toMap(HashedUser::hash, user -> "(hash)", (a, b) -> a)));
  }

  private static List<String> rolesOf(String user, Order order) {
    return order.application().access().roles().entrySet().stream()
        .filter(role -> role.getValue().contains(user))
        .map(Map.Entry::getKey)
        .toList();
  }
}
