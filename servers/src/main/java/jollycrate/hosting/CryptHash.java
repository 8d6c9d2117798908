package jollycrate.hosting;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.regex.Pattern;
import org.apache.commons.codec.digest.Sha2Crypt;

/**
 * Salted hashes as {@code crypt(3)} writes them: {@code $6$rounds=N$salt$key}, with SHA-512 and so
 * many rounds that guessing is slow.
 */
public final class CryptHash extends Hashing {
  /** Rounds. */
  private static final String ROUNDS = "$6$rounds=100000$";

  private static final Pattern FORM =
      Pattern.compile("\\$6\\$(rounds=\\d{4,7}\\$)?[./0-9A-Za-z]{1,16}\\$[./0-9A-Za-z]{86}");
  private static final int SALT_CHARACTERS = 16;
  private static final String LETTERS =
      "./0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";

  @Override
  public boolean isOne(String stored) {
    return FORM.matcher(stored).matches();
  }

  @Override
  protected String made(String password) {
    return crypt(password, ROUNDS + saltText());
  }

  @Override
  protected boolean matches(String stored, String password) {
    return MessageDigest.isEqual(
        stored.getBytes(StandardCharsets.UTF_8),
        crypt(password, stored).getBytes(StandardCharsets.UTF_8));
  }

  private static String saltText() {
    StringBuilder text = new StringBuilder();
    for (byte random : salt(SALT_CHARACTERS)) {
      text.append(LETTERS.charAt(random & (LETTERS.length() - 1)));
    }
    return text.toString();
  }

  private static String crypt(String password, String settings) {
    return Sha2Crypt.sha512Crypt(password.getBytes(StandardCharsets.UTF_8), settings);
  }
}
