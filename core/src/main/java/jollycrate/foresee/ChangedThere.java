package jollycrate.foresee;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.file.Digests;
import jollycrate.server.Keys;
import jollycrate.server.Splicer;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/**
 * A piece of ours that somebody changed on the server.
 *
 * @param key that we know it by
 * @param subject what people call it
 * @param left digest of what we left there
 * @param text of it now; empty when it is no text in UTF-8
 */
public record ChangedThere(String key, String subject, String left, Optional<String> text) {

  /** What is to become of it. */
  public enum Choice {
    /** Nothing is touched; whoever delivers is asked. */
    ASK,
    /** It stays beside what the delivery changes. */
    KEEP,
    /** What the delivery wants stands there afterwards. */
    REPLACE
  }

  /**
   * The pieces of an application that are not as we left them.
   *
   * @param splicers how fragments stand in a file
   */
  public static List<ChangedThere> of(
      Stock stock, Standing.Owner owner, Function<Path, Optional<Splicer>> splicers) {
    List<ChangedThere> changed = new ArrayList<>();
    for (Map.Entry<String, Standing.Held> held : owner.pieces().entrySet()) {
      String key = held.getKey();
      String left = held.getValue().digest();
      Path path = Keys.path(stock.server(), key);
      if (Keys.isFragment(key)) {
        splicers
            .apply(path)
            .flatMap(it -> it.find(stock.text(path).orElse(""), Keys.fragmentName(key)))
            .filter(text -> !left.equals(Digests.of(text.getBytes(StandardCharsets.UTF_8))))
            .map(text -> new ChangedThere(key, subject(stock, key), left, Optional.of(text)))
            .ifPresent(changed::add);
      } else if (!left.equals(Standing.FOLDER)
          && stock.at(path).exists()
          && !left.equals(stock.digests().get(path))) {
        changed.add(new ChangedThere(key, subject(stock, key), left, text(stock, path)));
      }
    }
    return List.copyOf(changed);
  }

  private static String subject(Stock stock, String key) {
    String file = stock.server().shown(Keys.path(stock.server(), key));
    return Keys.isFragment(key) ? file + ", '" + Keys.fragmentName(key) + "'" : file;
  }

  private static Optional<String> text(Stock stock, Path path) {
    return stock
        .text(path)
        .filter(
            text -> Arrays.equals(text.getBytes(StandardCharsets.UTF_8), stock.texts().get(path)));
  }
}
