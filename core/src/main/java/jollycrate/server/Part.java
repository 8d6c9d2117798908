package jollycrate.server;

/** What a piece does in a swap. */
public enum Part {
  /** Put before the switch, removed after the release that needs it is gone. */
  SUPPORT,
  /** Put before the switch, removed with it: the server takes leave of both together. */
  COMPANION,
  /** Brings up a release beside another one, before the switch. */
  BESIDE,
  /** The piece whose rename makes a placement live. */
  SWITCH,
  /** A file of the server itself, which stays its own. */
  OWN
}
