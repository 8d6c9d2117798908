package jollycrate.server;

/** What is waited for. */
public enum Expected {
  /** The placement is up. */
  UP,
  /** Requests reach the placement, which was up before. */
  SWITCHED,
  /** Nobody is connected to it any more. */
  DRAINED,
  /** Nothing of the placement is left. */
  GONE
}
