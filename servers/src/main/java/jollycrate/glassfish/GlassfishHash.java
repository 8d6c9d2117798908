package jollycrate.glassfish;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Base64;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.hosting.Hashing;

/**
 * Salted hashes as GlassFish reads them: {@code {SSHA256}} and, in base 64, a hundred rounds of
 * SHA-256 (FIPS 180-4) over password and salt, then the salt. It reads no slower ones.
 */
final class GlassfishHash extends Hashing {
  private static final String MARK = "{SSHA256}";
  private static final Pattern FORM =
      Pattern.compile(Pattern.quote(MARK) + "([A-Za-z0-9+/]{43,200}={0,2})");
  private static final int ROUNDS = 100;
  private static final int KEY_BYTES = 32;
  private static final int SALT_BYTES = 16;

  @Override
  public boolean isOne(String stored) {
    return FORM.matcher(stored).matches();
  }

  @Override
  protected String made(String password) {
    byte[] salt = salt(SALT_BYTES);
    byte[] whole = Arrays.copyOf(key(password, salt), KEY_BYTES + SALT_BYTES);
    System.arraycopy(salt, 0, whole, KEY_BYTES, SALT_BYTES);
    return MARK + Base64.getEncoder().encodeToString(whole);
  }

  @Override
  protected boolean matches(String stored, String password) {
    Matcher form = FORM.matcher(stored);
    if (!form.matches()) {
      return false;
    }
    try {
      byte[] whole = Base64.getDecoder().decode(form.group(1));
      byte[] salt = Arrays.copyOfRange(whole, KEY_BYTES, whole.length);
      return MessageDigest.isEqual(Arrays.copyOf(whole, KEY_BYTES), key(password, salt));
    } catch (IllegalArgumentException damaged) {
      return false;
    }
  }

  private static byte[] key(String password, byte[] salt) {
    try {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      digest.update(password.getBytes(StandardCharsets.UTF_8));
      byte[] key = digest.digest(salt);
      for (int round = 1; round < ROUNDS; round++) {
        key = digest.digest(key);
      }
      return key;
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
