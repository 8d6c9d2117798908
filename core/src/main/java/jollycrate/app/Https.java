package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * A listener for HTTPS.
 *
 * @param keystore a team's own, in PKCS#12 (RFC 7292); empty: one with a certificate that was
 *     signed by itself is made
 * @param password of that keystore
 * @param certificate what our own requests expect, {@code sha256:} and the digest of its encoded
 *     form in hexadecimal; empty before it is known
 */
public record Https(
    int port, Optional<Path> keystore, Optional<Reference> password, Optional<String> certificate) {
  /** How such a certificate is written. */
  static final String CERTIFICATE_FORM = "sha256:[0-9a-f]{64}";

  static Optional<Https> read(Section section, Path folder) {
    Optional<Integer> port = section.number("https", 1, 65_535).map(Long::intValue);
    Optional<Path> keystore = section.text("keystore").map(at -> folder.resolve(at).normalize());
    Optional<Reference> password = section.reference("keystore-password");
    Optional<String> certificate = section.text("certificate");
    for (String key : List.of("keystore", "keystore-password", "certificate")) {
      if (port.isEmpty() && section.has(key)) {
        section.problem(key, "nothing listens for HTTPS", "Add https = 8443, or remove it");
      }
    }
    if (keystore.isPresent() && !section.has("keystore-password")) {
      section.missing(
          "keystore-password", "Say where it stands, like keystore-password = \"env:NAME\"");
    }
    certificate
        .filter(text -> !text.matches(CERTIFICATE_FORM))
        .ifPresent(
            text ->
                section.problem(
                    "certificate",
                    "'" + text + "' is no digest of a certificate",
                    "Write sha256: and 64 digits, or remove it: 'jolly server change' writes it"));
    return port.map(number -> new Https(number, keystore, password, certificate));
  }
}
