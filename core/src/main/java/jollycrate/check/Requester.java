package jollycrate.check;

import java.io.IOException;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;

/** Sends HTTP requests: once each, following no redirect, keeping cookies per user. */
public interface Requester extends AutoCloseable {
  /**
   * Sends one request.
   *
   * @param limit longest time for the whole exchange
   */
  Answer send(Request request, Duration limit);

  /**
   * What is sent.
   *
   * @param headers by name, beside those that every request has
   * @param login who logs in, by BASIC authentication (RFC 7617)
   */
  record Request(
      String method,
      URI url,
      Map<String, String> headers,
      Optional<Ask.Sent> sent,
      Optional<Login> login) {
    /** Asks for a page, as nobody. */
    public static Request get(URI url) {
      return new Request("GET", url, Map.of(), Optional.empty(), Optional.empty());
    }
  }

  /**
   * Says where a name leads, whatever the name service says: a virtual host is asked by its name
   * before that is known anywhere.
   */
  default void leads(String name, String address) {}

  /**
   * The certificate that whoever listens there shows; nobody is trusted for it.
   *
   * @param url its host and port
   * @param limit longest time for the handshake
   * @throws IOException when nobody listens there, or shows none
   */
  X509Certificate certificate(URI url, Duration limit) throws IOException;

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
