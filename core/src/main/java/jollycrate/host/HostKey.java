package jollycrate.host;

import java.nio.file.Path;
import java.util.Optional;

/**
 * The key by which a machine shows that it is the one meant.
 *
 * @param type as SSH calls it, {@code ssh-ed25519}
 * @param fingerprint its SHA-256, as {@code ssh-keygen -l} writes it
 * @param known the fingerprint of the key of this type that is known; empty when none is
 * @param revoked whether that line forbids this very key
 * @param file where trusted keys are kept
 * @param line of that file that has the other key; 0 when none has
 */
public record HostKey(
    String type, String fingerprint, Optional<String> known, boolean revoked, Path file, int line) {
  /** Whether it is trusted. */
  public boolean trusted() {
    return !revoked && known.equals(Optional.of(fingerprint));
  }
}
