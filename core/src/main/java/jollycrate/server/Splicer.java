package jollycrate.server;

import java.util.Optional;
import jollycrate.xml.XmlException;

/** Keyed insertions into a text that belongs to somebody else. */
public interface Splicer {
  /** When the server takes notice of a fragment that came or went. */
  default PickUp pickUp() {
    return PickUp.LIVE;
  }

  /** The fragment that stands under a key. */
  Optional<String> find(String text, String key);

  /**
   * The text with the fragment under that key, in place of an older one; the rest unchanged.
   *
   * @throws XmlException the text cannot be read, or has no place for it
   */
  String insert(String text, String key, String fragment);

  /**
   * The text without the fragment under that key; the rest unchanged.
   *
   * @throws XmlException the text cannot be read
   */
  String remove(String text, String key);
}
