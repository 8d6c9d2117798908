package jollycrate.check;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.Collection;
import java.util.stream.Stream;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509TrustManager;

/** Those that this Java trusts, and some more. */
final class TrustedCertificates {
  private TrustedCertificates() {}

  /**
   * Trusts both.
   *
   * @param more a file in PEM (RFC 7468)
   * @throws IOException when it holds no certificate, or cannot be read
   */
  static SSLContext and(Path more) throws IOException {
    try {
      KeyStore all = KeyStore.getInstance(KeyStore.getDefaultType());
      all.load(null, null);
      for (X509Certificate usual : usual()) {
        all.setCertificateEntry("java " + all.size(), usual);
      }
      for (Certificate one : inFile(more)) {
        all.setCertificateEntry("file " + all.size(), one);
      }
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(null, managers(all), null);
      return context;
    } catch (GeneralSecurityException e) {
      throw new IOException("'" + more + "' is not understood: " + e.getMessage(), e);
    }
  }

  private static Collection<? extends Certificate> inFile(Path more)
      throws IOException, GeneralSecurityException {
    try (InputStream in = Files.newInputStream(more)) {
      Collection<? extends Certificate> found =
          CertificateFactory.getInstance("X.509").generateCertificates(in);
      if (found.isEmpty()) {
        throw new IOException("'" + more + "' holds no certificate");
      }
      return found;
    }
  }

  private static X509Certificate[] usual() throws GeneralSecurityException {
    return Stream.of(managers(null))
        .filter(X509TrustManager.class::isInstance)
        .map(X509TrustManager.class::cast)
        .flatMap(manager -> Stream.of(manager.getAcceptedIssuers()))
        .toArray(X509Certificate[]::new);
  }

  private static TrustManager[] managers(KeyStore store) throws GeneralSecurityException {
    TrustManagerFactory factory =
        TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
    factory.init(store);
    return factory.getTrustManagers();
  }
}
