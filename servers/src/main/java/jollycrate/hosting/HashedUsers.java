package jollycrate.hosting;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
    Map<String, String> hidden = new HashMap<>(shown(earlier.values()));
    List<HashedUser> users =
        order.userPasswords().entrySet().parallelStream()
            .map(user -> hashed(user, earlier.getOrDefault(user.getKey(), ""), order, hashing))
            .sorted(Comparator.comparing(HashedUser::name))
            .toList();
    users.stream()
        .filter(user -> !user.hash().equals(earlier.get(user.name())))
        .forEach(user -> hidden.put(user.hash(), "(new hash)"));
    return new HashedUsers(users, hidden);
  }

  /** Side by side with the others, as to compare a password with its hash is slow on purpose. */
  private static HashedUser hashed(
      Map.Entry<String, String> user, String earlier, Order order, Hashing hashing) {
    String hash =
        hashing.verifies(earlier, user.getValue()) ? earlier : hashing.of(user.getValue());
    return new HashedUser(user.getKey(), hash, rolesOf(user.getKey(), order));
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
