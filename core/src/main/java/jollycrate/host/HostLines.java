package jollycrate.host;

import java.util.Optional;

/** Reaches other machines; found by {@link java.util.ServiceLoader}. */
public interface HostLines {
  /**
   * Connects.
   *
   * @throws UnreachableException with what keeps it from being reached
   */
  HostLine open(Reach reach);

  /** What is missing here to reach other machines, with how to get it; empty when nothing is. */
  Optional<String> missing();

  /**
   * Which key a machine shows; nobody logs in.
   *
   * @throws UnreachableException when it shows none
   */
  HostKey key(Reach reach);

  /**
   * Trusts a key from now on, besides those that are trusted.
   *
   * @throws UnreachableException when the machine shows another key by now
   */
  void trust(Reach reach, HostKey key);
}
