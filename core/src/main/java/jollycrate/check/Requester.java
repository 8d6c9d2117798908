package jollycrate.check;

import java.net.URI;
import java.time.Duration;
import java.util.Optional;

/** Sends HTTP requests: once each, following no redirect, keeping cookies per user. */
public interface Requester extends AutoCloseable {
  /**
   * Sends one request.
   *
   * @param body sent as {@code application/json}
   * @param login who logs in, by BASIC authentication (RFC 7617)
   * @param limit longest time for the whole exchange
   */
  Answer send(String method, URI url, Optional<String> body, Optional<Login> login, Duration limit);

  /**
   * Says where a name leads, whatever the name service says: a virtual host is asked by its name
   * before that is known anywhere.
   */
  default void leads(String name, String address) {}

  @Override
  void close();

  /** A user with a password. */
  record Login(String user, String password) {
    @Override
    public String toString() {
      return user;
    }
  }
}
