package jollycrate.step;

/** What makes an application run again that stands there and does not run. */
public enum Cure {
  /** It needs none. */
  NONE,
  /** Its switch is put afresh, so that the running server tries again. */
  SWITCH_AGAIN,
  /** The server is restarted. */
  RESTART
}
