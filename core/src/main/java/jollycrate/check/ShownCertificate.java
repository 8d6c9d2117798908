package jollycrate.check;

import java.io.IOException;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** How long the certificate is valid still that is shown at an address. */
record ShownCertificate(Requester requester, URI url) {
  private static final Duration LIMIT = Duration.ofSeconds(10);

  /** What came instead of one that is valid for so many days. */
  Optional<String> missing(int days) {
    if (!url.getScheme().equals("https")) {
      return Optional.of("no TLS: " + url.getScheme());
    }
    try {
      X509Certificate shown = requester.certificate(url, LIMIT);
      Instant end = shown.getNotAfter().toInstant();
      long left = ChronoUnit.DAYS.between(Instant.now(), end);
      return left < days
          ? Optional.of("for " + left + " days, until " + end.truncatedTo(ChronoUnit.SECONDS))
          : Optional.empty();
    } catch (IOException e) {
      return Optional.of("none to be seen: " + e.getMessage());
    }
  }
}
