package jollycrate.secret;

import java.util.regex.Pattern;

/** Names of attributes and keys in configuration whose values people must not see. */
public final class SecretNames {
  /** A part of such a name. */
  public static final String PART = "(?:password|passwd|secret|credential|connectionProperties)";

  private static final Pattern NAME = Pattern.compile(PART, Pattern.CASE_INSENSITIVE);

  private SecretNames() {}

  /** Whether a value of this name is to be hidden. */
  public static boolean match(String name) {
    return NAME.matcher(name).find();
  }
}
