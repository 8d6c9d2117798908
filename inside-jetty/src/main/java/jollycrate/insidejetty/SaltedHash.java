package jollycrate.insidejetty;

import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.HexFormat;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.PBEKeySpec;
import org.eclipse.jetty.util.security.Credential;

/** {@code salt$iterations$key} in hexadecimal: PBKDF2 with HMAC-SHA-512 (RFC 8018). */
final class SaltedHash extends Credential {
  private static final HexFormat HEX = HexFormat.of();

  private final String stored;

  SaltedHash(String stored) {
    this.stored = stored;
  }

  @Override
  public boolean check(Object given) {
    String[] parts = stored.split("\\$");
    if (parts.length != 3 || !(given instanceof String password)) {
      return false;
    }
    byte[] key = HEX.parseHex(parts[2]);
    PBEKeySpec spec =
        new PBEKeySpec(
            password.toCharArray(),
            HEX.parseHex(parts[0]),
            Integer.parseInt(parts[1]),
            key.length * Byte.SIZE);
    try {
      SecretKeyFactory factory = SecretKeyFactory.getInstance("PBKDF2WithHmacSHA512");
      return MessageDigest.isEqual(key, factory.generateSecret(spec).getEncoded());
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java 17 has PBKDF2WithHmacSHA512", e);
    } finally {
      spec.clearPassword();
    }
  }
}
