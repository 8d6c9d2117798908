package jollycrate.hosting;

import java.security.SecureRandom;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** How a kind of server keeps passwords: by salted hashes in a form that it reads. */
public abstract class Hashing {
  /** Hashes with the passwords they are of: to make one is slow, as it has to be. */
  private static final Map<String, String> KNOWN = new ConcurrentHashMap<>();

  private static final SecureRandom RANDOM = new SecureRandom();

  /** The hash of a password, with a salt of its own. */
  public final String of(String password) {
    String hash = made(password);
    KNOWN.put(hash, password);
    return hash;
  }

  /** Whether a text is a hash of a password. */
  public final boolean verifies(String stored, String password) {
    if (password.equals(KNOWN.get(stored))) {
      return true;
    }
    boolean verified = isOne(stored) && matches(stored, password);
    if (verified) {
      KNOWN.put(stored, password);
    }
    return verified;
  }

  /** Whether a text has the form of one. */
  public abstract boolean isOne(String stored);

  /** A new salt. */
  protected static byte[] salt(int bytes) {
    byte[] salt = new byte[bytes];
    RANDOM.nextBytes(salt);
    return salt;
  }

  /** Makes one with a new salt. */
  protected abstract String made(String password);

  /** Whether what has the form of one is of that password. */
  protected abstract boolean matches(String stored, String password);
}
