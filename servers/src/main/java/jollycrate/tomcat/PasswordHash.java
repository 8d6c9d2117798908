package jollycrate.tomcat;

import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.PBEKeySpec;

/**
 * Salted hashes as Tomcat's SecretKeyCredentialHandler reads them: {@code salt$iterations$key} in
 * hexadecimal, PBKDF2 with HMAC-SHA-512 (RFC 8018).
 */
final class PasswordHash {
  static final String ALGORITHM = "PBKDF2WithHmacSHA512";
  static final int ITERATIONS = 20_000;
  static final int KEY_BITS = 256;
  static final int SALT_BYTES = 16;

  private static final SecureRandom RANDOM = new SecureRandom();
  private static final HexFormat HEX = HexFormat.of();

  private PasswordHash() {}

  static String of(String password) {
    byte[] salt = new byte[SALT_BYTES];
    RANDOM.nextBytes(salt);
    return HEX.formatHex(salt) + "$" + ITERATIONS + "$" + key(password, salt, ITERATIONS);
  }

  static boolean verifies(String stored, String password) {
    if (!stored.matches("([0-9a-f]{2})+\\$\\d{1,8}\\$[0-9a-f]+")) {
      return false;
    }
    String[] parts = stored.split("\\$");
    String key = key(password, HEX.parseHex(parts[0]), Integer.parseInt(parts[1]));
    return MessageDigest.isEqual(key.getBytes(), parts[2].getBytes());
  }

  private static String key(String password, byte[] salt, int iterations) {
    PBEKeySpec spec = new PBEKeySpec(password.toCharArray(), salt, iterations, KEY_BITS);
    try {
      return HEX.formatHex(
          SecretKeyFactory.getInstance(ALGORITHM).generateSecret(spec).getEncoded());
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java 17 has " + ALGORITHM, e);
    } finally {
      spec.clearPassword();
    }
  }
}
