package jollycrate.check;

import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.app.LogIn;

/**
 * Who logs in for checks, and how.
 *
 * @param secrets passwords and tokens, by name
 * @param ways of those who do not log in by BASIC authentication
 * @param hides hears what nobody is to be told from then on
 * @param databases passwords of data sources, by JNDI name
 */
public record People(
    Map<String, String> secrets,
    Map<String, LogIn> ways,
    Consumer<String> hides,
    Map<String, String> databases) {
  /** Nobody. */
  public static final People NOBODY = new People(Map.of(), Map.of(), text -> {}, Map.of());

  /** How somebody is let in before the first request; empty when nothing is done before it. */
  Optional<LogIn> act(String user) {
    return Optional.ofNullable(ways.get(user)).filter(LogIn::isAct);
  }

  /** What is sent with each request of somebody; empty when that comes of being let in. */
  Optional<Requester.Credentials> credentials(String user) {
    return act(user).isPresent()
        ? Optional.empty()
        : Optional.of(new Requester.Credentials(user, secrets.get(user), ways.containsKey(user)));
  }
}
