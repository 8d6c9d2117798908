package jollycrate.app;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** Who starts a server after the machine was started. */
public enum Boot {
  /** The user's own service manager. */
  USER,
  /** The machine's service manager. */
  SYSTEM;

  /** How {@code servers.toml} calls it. */
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The one that {@code servers.toml} calls so. */
  public static Optional<Boot> of(String key) {
    return Arrays.stream(values()).filter(boot -> boot.key().equals(key)).findFirst();
  }
}
