package jollycrate.check;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.Charset;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;
import jollycrate.browser.Visit;

/** Sends HTTP requests: once each, following no redirect. Several threads may. */
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
   */
  record Request(
      String method,
      URI url,
      Map<String, String> headers,
      Optional<Ask.Sent> sent,
      Session session) {
    /** Asks for a page, as nobody. */
    public static Request get(URI url) {
      return get(url, Session.NONE);
    }

    /** Asks for a page. */
    static Request get(URI url, Session session) {
      return new Request("GET", url, Map.of(), Optional.empty(), session);
    }
  }

  /**
   * As whom something is asked.
   *
   * @param cookies those of the same word share their cookies (RFC 6265)
   * @param credentials sent with each request
   * @param untilDone whether a signal that asks to stop waits for it
   */
  record Session(String cookies, Optional<Credentials> credentials, boolean untilDone) {
    /** As nobody. */
    static final Session NONE = new Session("", Optional.empty(), false);

    /** The same that shows something with each request. */
    Session showing(Credentials other) {
      return new Session(cookies, Optional.of(other), untilDone);
    }

    Session finishing() {
      return new Session(cookies, credentials, true);
    }
  }

  /**
   * Says where a name leads, whatever the name service says: a virtual host is asked by its name
   * before that is known anywhere.
   */
  default void leads(String name, String address) {}

  /** The cookies that came in a session. */
  default List<Visit.Cookie> cookies(String session) {
    return List.of();
  }

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

  /**
   * Who is logged in by what is sent with each request.
   *
   * @param secret password for BASIC authentication (RFC 7617), or token (RFC 6750)
   */
  record Credentials(String user, String secret, boolean token) {
    /** As it stands in a header. */
    String header(Charset charset) {
      String pair = user + ":" + secret;
      return token
          ? "Bearer " + secret
          : "Basic " + Base64.getEncoder().encodeToString(pair.getBytes(charset));
    }

    @Override
    public String toString() {
      return user;
    }
  }
}
