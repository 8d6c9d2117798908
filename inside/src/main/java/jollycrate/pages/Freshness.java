package jollycrate.pages;

import java.util.regex.Pattern;

/** How long a browser may keep what it got (RFC 9111, section 5.2; RFC 8246 for immutable). */
public final class Freshness {
  /** Ask again before each use. */
  public static final String ASK = "no-cache";

  /** The name changes with the content. */
  public static final String LONG = "public, max-age=31536000, immutable";

  private static final Pattern ASSET =
      Pattern.compile(".*[.-](?=[^./]*\\d)([A-Za-z0-9_]{8,64})(\\.[A-Za-z0-9]+){1,2}");

  private Freshness() {}

  /**
   * The header for a path inside the application.
   *
   * @param settings path of the settings file, or empty
   * @return empty when nothing is said
   */
  public static String of(String path, String settings) {
    String name = path.substring(path.lastIndexOf('/') + 1);
    boolean page = name.isEmpty() || name.endsWith(".html") || name.endsWith(".htm");
    if (page || name.indexOf('.') < 0 || path.equals("/" + settings)) {
      return ASK;
    }
    return isFingerprinted(name) ? LONG : "";
  }

  /**
   * Whether a file's name holds a digest of its content: eight characters or more, with a digit.
   */
  public static boolean isFingerprinted(String name) {
    return ASSET.matcher(name).matches();
  }
}
