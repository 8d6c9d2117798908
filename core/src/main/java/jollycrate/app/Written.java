package jollycrate.app;

import java.util.List;

/**
 * A value that people wrote, and that counts.
 *
 * @param key with its tables, as TOML writes it
 * @param value as TOML writes it
 * @param place file and line
 * @param overrides files and lines where others stand for the same key that do not count
 */
public record Written(String key, String value, String place, List<String> overrides) {
  /** The same under another key. */
  Written in(String other) {
    return new Written(other, value, place, overrides);
  }
}
