package jollycrate.server;

import java.util.Optional;

/** Keyed insertions into a text that belongs to somebody else. */
public interface Splicer {
  /** When the server takes notice of a fragment that came or went. */
  default PickUp pickUp() {
    return PickUp.LIVE;
  }

  /** The fragment that stands under a key. */
  Optional<String> find(String text, String key);

  /** The text with the fragment under that key, in place of an older one; the rest unchanged. */
  String insert(String text, String key, String fragment);

  /** The text without the fragment under that key; the rest unchanged. */
  String remove(String text, String key);
}
