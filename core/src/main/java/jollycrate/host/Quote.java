package jollycrate.host;

import java.nio.file.Path;
import java.util.Collection;
import java.util.stream.Collectors;

/** Words of a POSIX shell (XCU 2.2.2). */
public final class Quote {
  private Quote() {}

  /** A text as one word, whatever it holds. */
  public static String word(String text) {
    if (text.indexOf('\0') >= 0) {
      throw new HostException("Cannot pass a NUL to a shell");
    }
    return "'" + text.replace("'", "'\\''") + "'";
  }

  /** A path as one word. */
  public static String word(Path path) {
    return word(path.toString());
  }

  /** Texts as one word each. */
  public static String words(Collection<?> texts) {
    return texts.stream().map(text -> word(text.toString())).collect(Collectors.joining(" "));
  }
}
