package jollycrate.hosting;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.HexFormat;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.PBEKeySpec;

/**
 * Salted hashes: {@code salt$iterations$key} in hexadecimal, PBKDF2 with HMAC-SHA-512 (RFC 8018).
 */
public final class PasswordHash extends Hashing {
  /** They differ by their salts alone. */
  public static final Hashing HASHING = new PasswordHash();

  /** As Java calls it. */
  public static final String ALGORITHM = "PBKDF2WithHmacSHA512";

  /** Rounds. */
  public static final int ITERATIONS = 210_000;

  /** Length of the derived key. */
  public static final int KEY_BITS = 256;

  /** Length of the salt. */
  public static final int SALT_BYTES = 16;

  private static final HexFormat HEX = HexFormat.of();

  private PasswordHash() {}

  @Override
  public boolean isOne(String stored) {
    return stored.matches("([0-9a-fA-F]{2})+\\$\\d{1,8}\\$[0-9a-fA-F]+");
  }

  @Override
  protected String made(String password) {
    byte[] salt = salt(SALT_BYTES);
    return HEX.formatHex(salt)
        + "$"
        + ITERATIONS
        + "$"
        + HEX.formatHex(key(password, salt, ITERATIONS));
  }

  @Override
  protected boolean matches(String stored, String password) {
    String[] parts = stored.split("\\$");
    byte[] key = key(password, HEX.parseHex(parts[0]), Integer.parseInt(parts[1]));
    return MessageDigest.isEqual(
        HEX.formatHex(key).getBytes(StandardCharsets.UTF_8),
        parts[2].getBytes(StandardCharsets.UTF_8));
  }

  /** The key of {@link #KEY_BITS} that a password is made into. */
  public static byte[] key(String password, byte[] salt, int iterations) {
    PBEKeySpec spec = new PBEKeySpec(password.toCharArray(), salt, iterations, KEY_BITS);
    try {
      return SecretKeyFactory.getInstance(ALGORITHM).generateSecret(spec).getEncoded();
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java 17 has " + ALGORITHM, e);
    } finally {
      spec.clearPassword();
    }
  }
}
