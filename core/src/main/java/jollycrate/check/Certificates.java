package jollycrate.check;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.cert.CertificateEncodingException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import jollycrate.file.Digests;

/** Certificates that servers show (X.509, RFC 5280), told by the digest of their encoded form. */
public final class Certificates {
  private static final String DIGEST = "sha256:";

  private Certificates() {}

  /** The digest of a certificate. */
  public static String digest(X509Certificate certificate) {
    try {
      return DIGEST + Digests.of(certificate.getEncoded());
    } catch (CertificateEncodingException e) {
      throw new IllegalStateException("it was decoded before", e);
    }
  }

  /**
   * The certificate that whoever listens there shows; nobody is trusted for it.
   *
   * @param socket not connected yet; it is closed afterwards
   * @param limit longest time for the handshake
   * @throws IOException when nobody does, or shows none
   */
  static X509Certificate shown(Socket socket, InetSocketAddress at, Duration limit)
      throws IOException {
    String host = at.getHostString();
    int port = at.getPort();
    int millis = Math.toIntExact(limit.toMillis());
    try (Socket plain = socket) {
      plain.connect(at, millis);
      plain.setSoTimeout(millis);
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(null, new TrustManager[] {new OnlyLooking()}, null);
      try (SSLSocket tls =
          (SSLSocket) context.getSocketFactory().createSocket(plain, host, port, true)) {
        tls.startHandshake();
        return (X509Certificate) tls.getSession().getPeerCertificates()[0];
      }
    } catch (GeneralSecurityException e) {
      throw new IOException(e);
    }
  }

  /** Lets every certificate through to whoever compares it; nothing is sent behind it. */
  private static final class OnlyLooking implements X509TrustManager {
    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type) {}

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type) {}

    @Override
    public X509Certificate[] getAcceptedIssuers() {
      return new X509Certificate[0];
    }
  }
}
