package jollycrate.hosting;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.host.Content;
import jollycrate.server.Order;
import jollycrate.server.Stock;
import org.apache.commons.codec.binary.Base32;

/**
 * Users of a server in files of their own, one each. They are the server's: applications that name
 * the same user share his file, and when they say something else of him, that is refused.
 *
 * @param folder that they stand in
 * @param before the beginning of their names
 * @param text of such a file
 * @param hash that stands in such a text; empty in one that is none
 */
public record UserFiles(
    Path folder,
    String before,
    Function<HashedUsers.HashedUser, String> text,
    Function<String, Optional<String>> hash) {
  /** The end of their names. */
  public static final String ENDING = ".xml";

  /** The file of a user: what is readable of his name, and all of it in base 32 (RFC 4648). */
  public Path file(String user) {
    String readable =
        Normalizer.normalize(user, Normalizer.Form.NFKC)
            .toLowerCase(Locale.ROOT)
            .replaceAll("[^a-z0-9]", "_");
    String whole =
        new Base32().encodeAsString(user.getBytes(StandardCharsets.UTF_8)).replace("=", "");
    return folder.resolve(before + readable + "-" + whole + ENDING);
  }

  /**
   * Puts the users of an order.
   *
   * @return hashes, with what people see instead
   */
  public Map<String, String> put(Stock stock, Order order, Hashing hashing, Delivered delivered) {
    Map<String, String> earlier = new HashMap<>();
    for (String name : order.userPasswords().keySet()) {
      stock.text(file(name)).flatMap(hash).ifPresent(stored -> earlier.put(name, stored));
    }
    HashedUsers users = HashedUsers.of(order, earlier, hashing);
    for (HashedUsers.HashedUser user : users.users()) {
      delivered.secret(file(user.name()), Content.of(text.apply(user)));
    }
    return users.hidden();
  }
}
