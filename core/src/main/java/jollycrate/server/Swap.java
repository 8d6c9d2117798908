package jollycrate.server;

/** How one release takes the place of another. */
public enum Swap {
  /** The running server picks up the switch. */
  LIVE,
  /** The server is stopped, the switch changed, the server started. */
  RESTART,
  /** The new release is proven beside the old one; then the switch sends requests to it. */
  BESIDE_THEN_SWITCH
}
