package jollycrate.app;

import java.util.Map;
import java.util.Optional;

/**
 * What a check sends.
 *
 * @param method of HTTP, in capitals
 * @param path below the context path, with query
 * @param headers by name, beside those that every request has
 * @param sent what is sent behind them
 * @param user who logs in
 */
public record Ask(
    String method,
    String path,
    Map<String, String> headers,
    Optional<Sent> sent,
    Optional<String> user) {
  /**
   * What is sent behind the headers.
   *
   * @param type of media (RFC 9110, section 8.3)
   */
  public record Sent(String type, String text) {}

  /** Asks for a path, and sends nothing else. */
  public static Ask get(String path, Optional<String> user) {
    return new Ask("GET", path, Map.of(), Optional.empty(), user);
  }

  /** Whether nothing is meant to be changed by it (RFC 9110, section 9.2.1). */
  public boolean isSafe() {
    return method.equals("GET") || method.equals("HEAD");
  }
}
