package jollycrate.app;

import java.util.regex.Pattern;

/** Context paths as in Jakarta Servlet 6.0, section 3.5: empty for the root, else {@code /name}. */
public final class ContextPath {
  private static final Pattern FORM = Pattern.compile("(/[A-Za-z0-9._~-]+)+");

  /** Its parts become the name of a file on most servers. */
  private static final int LONGEST = 200;

  private ContextPath() {}

  /** The path in its one form: without a slash at the end, empty for the root. */
  public static String normal(String written) {
    return written.endsWith("/") ? written.substring(0, written.length() - 1) : written;
  }

  /** Why a written path cannot be used; empty when it can. */
  public static String fault(String written) {
    String path = normal(written);
    if (!written.startsWith("/")) {
      return "it does not begin with '/'";
    }
    if (path.length() > LONGEST) {
      return "it is longer than " + LONGEST + " characters";
    }
    if (!path.isEmpty() && !FORM.matcher(path).matches()) {
      return "only letters, digits and . _ ~ - may stand between its slashes";
    }
    boolean hidden = path.contains("/..") || path.contains("/./") || path.endsWith("/.");
    return hidden ? "it holds a '.' or '..' step" : "";
  }

  /** The path as people read it. */
  public static String shown(String path) {
    return path.isEmpty() ? "/" : path;
  }
}
