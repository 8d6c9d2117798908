package jollycrate.liberty;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Optional;
import jollycrate.hosting.Hashing;
import jollycrate.hosting.PasswordHash;

/**
 * Salted hashes as Open Liberty reads them: {@code {hash}} and, in base 64, tagged fields for the
 * algorithm (PBKDF2 with HMAC-SHA-512, RFC 8018), rounds, salt and key.
 */
final class LibertyHash extends Hashing {
  private static final String MARK = "{hash}";
  private static final byte VERSION = 1;
  private static final byte ALGORITHM = 0x10;
  private static final byte ROUNDS = 0x20;
  private static final byte SALT = 0x30;
  private static final byte KEY = 0x40;

  /** Rounds of a hash that does not tell them. */
  private static final int UNTOLD_ROUNDS = 6384;

  private static final int SALT_BYTES = 32;
  private static final int LONGEST = 1 << 10;

  /** What such a text holds. */
  private record Fields(int rounds, byte[] salt, byte[] key) {}

  @Override
  public boolean isOne(String stored) {
    return fields(stored).isPresent();
  }

  @Override
  protected String made(String password) {
    byte[] salt = salt(SALT_BYTES);
    byte[] key = PasswordHash.key(password, salt, PasswordHash.ITERATIONS);
    byte[] algorithm = PasswordHash.ALGORITHM.getBytes(StandardCharsets.US_ASCII);
    ByteBuffer bytes = ByteBuffer.allocate(LONGEST).put(VERSION);
    bytes.put(ALGORITHM).putInt(algorithm.length).put(algorithm);
    bytes.put(ROUNDS).putInt(PasswordHash.ITERATIONS);
    bytes.put(SALT).putInt(salt.length).put(salt);
    bytes.put(KEY).putInt(key.length).put(key);
    ByteBuffer whole = ByteBuffer.wrap(bytes.array(), 0, bytes.position());
    return MARK + StandardCharsets.US_ASCII.decode(Base64.getEncoder().encode(whole));
  }

  @Override
  protected boolean matches(String stored, String password) {
    return fields(stored)
        .filter(
            told ->
                MessageDigest.isEqual(
                    told.key(), PasswordHash.key(password, told.salt(), told.rounds())))
        .isPresent();
  }

  private static Optional<Fields> fields(String stored) {
    if (!stored.startsWith(MARK) || stored.length() > LONGEST) {
      return Optional.empty();
    }
    int rounds = UNTOLD_ROUNDS;
    byte[] algorithm = {};
    byte[] salt = {};
    byte[] key = {};
    try {
      ByteBuffer bytes =
          ByteBuffer.wrap(Base64.getDecoder().decode(stored.substring(MARK.length())));
      boolean known = bytes.get() == VERSION;
      while (known && bytes.hasRemaining()) {
        switch (bytes.get()) {
          case ROUNDS -> rounds = bytes.getInt();
          case ALGORITHM -> algorithm = field(bytes);
          case SALT -> salt = field(bytes);
          case KEY -> key = field(bytes);
          default -> known = false;
        }
      }
      boolean ours =
          new String(algorithm, StandardCharsets.US_ASCII).equals(PasswordHash.ALGORITHM);
      return known && ours && rounds > 0 && salt.length > 0
          ? Optional.of(new Fields(rounds, salt, key))
          : Optional.empty();
    } catch (IllegalArgumentException | BufferUnderflowException damaged) {
      return Optional.empty();
    }
  }

  private static byte[] field(ByteBuffer bytes) {
    int length = bytes.getInt();
    if (length < 0 || length > bytes.remaining()) {
      throw new IllegalArgumentException("cut off");
    }
    byte[] field = new byte[length];
    bytes.get(field);
    return field;
  }
}
