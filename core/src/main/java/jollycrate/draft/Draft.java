package jollycrate.draft;

import java.util.List;

/**
 * A first {@code jolly.toml}.
 *
 * @param file where it stands, or would
 * @param written false when a file stood there already, which is never changed
 * @param found values with the places they were found at
 * @param untold what a person must still tell
 * @param text the whole file
 */
public record Draft(
    String file, boolean written, List<Found> found, List<String> untold, String text) {

  /**
   * One value.
   *
   * @param key as it is named in the file
   * @param value as it is written there
   * @param where file, line or project that it comes from
   */
  public record Found(String key, String value, String where) {}
}
