package jollycrate.hosting;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.host.Content;
import jollycrate.server.Among;
import jollycrate.server.Order;
import jollycrate.server.Server;
import jollycrate.server.ServerUser;
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
 * @param roles that such a text gives him
 */
public record UserFiles(
    Path folder,
    String before,
    Function<HashedUsers.HashedUser, String> text,
    Function<String, Optional<String>> hash,
    Function<String, List<String>> roles) {
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

  /** Everybody whom the server knows, by the files that were read. */
  public List<ServerUser> all(Stock stock) {
    Among files = new Among(folder, ENDING);
    return stock.texts().keySet().stream()
        .filter(file -> files.contains(file) && file.getFileName().toString().startsWith(before))
        .sorted()
        .flatMap(file -> user(stock.server(), file, stock.text(file).orElse("")).stream())
        .toList();
  }

  private Optional<ServerUser> user(Server server, Path file, String told) {
    return hash.apply(told)
        .map(
            stored ->
                new ServerUser(name(file), roles.apply(told), "salted hash", server.shown(file)));
  }

  private static String name(Path file) {
    String base = Delivered.baseName(file);
    byte[] whole = new Base32().decode(base.substring(base.lastIndexOf('-') + 1));
    return new String(whole, StandardCharsets.UTF_8);
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
