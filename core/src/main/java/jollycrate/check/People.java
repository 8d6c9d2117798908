package jollycrate.check;

import java.util.Map;
import java.util.Optional;
import jollycrate.app.LogIn;

/**
 * Who logs in for checks, and how.
 *
 * @param secrets passwords and tokens, by name
 * @param ways of those who do not log in by BASIC authentication
 * @param databases passwords of data sources, by JNDI name
 */
public record People(
    Map<String, String> secrets, Map<String, LogIn> ways, Map<String, String> databases) {
  /** Nobody. */
  public static final People NOBODY = new People(Map.of(), Map.of(), Map.of());

  /** Path of the page with the form by which somebody logs in; empty when none is used. */
  Optional<String> form(String user) {
    return Optional.ofNullable(ways.get(user)).flatMap(LogIn::form);
  }

  /** What is sent with each request of somebody; empty when it is a cookie alone. */
  Optional<Requester.Credentials> credentials(String user) {
    return form(user).isPresent()
        ? Optional.empty()
        : Optional.of(new Requester.Credentials(user, secrets.get(user), ways.containsKey(user)));
  }
}
