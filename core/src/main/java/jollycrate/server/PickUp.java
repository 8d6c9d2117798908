package jollycrate.server;

/** When a server takes notice of a changed piece. */
public enum PickUp {
  /** While it runs. */
  LIVE,
  /** At its next start. */
  RESTART
}
