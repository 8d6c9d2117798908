package jollycrate.secret;

import java.util.Locale;
import java.util.Set;

/** Passwords that are tried first by whoever breaks in, and stand in instructions. */
public final class WellKnown {
  private static final Set<String> ALL =
      Set.of(
          "",
          "admin",
          "changeit",
          "manager",
          "password",
          "root",
          "s3cret",
          "secret",
          "test",
          "tomcat",
          "123456",
          "<must-be-changed>");

  private WellKnown() {}

  /** Whether everybody tries it, in whatever case. */
  public static boolean contains(String password) {
    return ALL.contains(password.toLowerCase(Locale.ROOT));
  }

  /** The same of a user of that name. */
  public static boolean contains(String password, String user) {
    return contains(password) || password.equalsIgnoreCase(user);
  }
}
