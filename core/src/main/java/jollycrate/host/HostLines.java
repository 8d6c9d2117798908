package jollycrate.host;

/** Reaches other machines; found by {@link java.util.ServiceLoader}. */
public interface HostLines {
  /**
   * Connects.
   *
   * @throws UnreachableException with what keeps it from being reached
   */
  HostLine open(Reach reach);

  /**
   * Which key a machine shows; nobody logs in.
   *
   * @throws UnreachableException when it shows none
   */
  HostKey key(Reach reach);

  /**
   * Trusts a key from now on; one of the same type that was trusted before is kept no longer.
   *
   * @throws UnreachableException when the machine shows another key by now
   */
  void trust(Reach reach, HostKey key);
}
