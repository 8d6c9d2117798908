package jollycrate.hosting;

import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.PBEKeySpec;

/**
 * Salted hashes: {@code salt$iterations$key} in hexadecimal, PBKDF2 with HMAC-SHA-512 (RFC 8018).
 */
public final class PasswordHash {
  /** As Java calls it. */
  public static final String ALGORITHM = "PBKDF2WithHmacSHA512";

  /** Rounds. */
  public static final int ITERATIONS = 210_000;

  /** Length of the derived key. */
  public static final int KEY_BITS = 256;

  /** Length of the salt. */
  public static final int SALT_BYTES = 16;

  private static final SecureRandom RANDOM = new SecureRandom();
  private static final HexFormat HEX = HexFormat.of();

  /** Hashes with the passwords they are of: to derive a key is slow, as it has to be. */
  private static final Map<String, String> KNOWN = new ConcurrentHashMap<>();

  private PasswordHash() {}

  /** Of a password, with a salt of its own. */
  public static String of(String password) {
    byte[] salt = new byte[SALT_BYTES];
    RANDOM.nextBytes(salt);
    String hash = HEX.formatHex(salt) + "$" + ITERATIONS + "$" + key(password, salt, ITERATIONS);
    KNOWN.put(hash, password);
    return hash;
  }

  /** Whether a text has the form of one. */
  public static boolean isOne(String stored) {
    return stored.matches("([0-9a-fA-F]{2})+\\$\\d{1,8}\\$[0-9a-fA-F]+");
  }

  /** Whether it is the hash of a password. */
  public static boolean verifies(String stored, String password) {
    if (password.equals(KNOWN.get(stored))) {
      return true;
    }
    if (!isOne(stored)) {
      return false;
    }
    String[] parts = stored.split("\\$");
    String key = key(password, HEX.parseHex(parts[0]), Integer.parseInt(parts[1]));
    boolean verified = MessageDigest.isEqual(key.getBytes(), parts[2].getBytes());
    if (verified) {
      KNOWN.put(stored, password);
    }
    return verified;
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
