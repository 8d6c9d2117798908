package jollycrate.ssh;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;

/**
 * The public half of a machine's key.
 *
 * @param type as SSH calls it, {@code ssh-ed25519}
 * @param base64 all of it, as known_hosts has it
 */
record PublicKey(String type, String base64) {

  /** As {@code ssh-keygen -l} writes it. */
  String fingerprint() {
    try {
      byte[] digest =
          MessageDigest.getInstance("SHA-256").digest(Base64.getDecoder().decode(base64));
      return "SHA256:" + Base64.getEncoder().withoutPadding().encodeToString(digest);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
