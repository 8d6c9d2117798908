package jollycrate.server;

import java.nio.file.Path;

/**
 * Names of pieces in our records: the path as seen from the server's folder, and the key of a
 * fragment.
 */
public final class Keys {
  private static final String FRAGMENT = "#fragment:";

  private Keys() {}

  /** The key of a piece. */
  public static String of(Server server, Piece piece) {
    String path = server.folder().relativize(piece.path()).toString();
    return piece instanceof Piece.Fragment fragment ? path + FRAGMENT + fragment.name() : path;
  }

  /** The file or folder of a key. */
  public static Path path(Server server, String key) {
    int fragment = key.indexOf(FRAGMENT);
    return server.folder().resolve(fragment < 0 ? key : key.substring(0, fragment)).normalize();
  }

  /** Whether the key names a fragment. */
  public static boolean isFragment(String key) {
    return key.contains(FRAGMENT);
  }

  /** The name of a fragment inside its file. */
  public static String fragmentName(String key) {
    return key.substring(key.indexOf(FRAGMENT) + FRAGMENT.length());
  }
}
