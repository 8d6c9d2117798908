package jollycrate.host;

/** Whether one process runs. */
public enum Life {
  RUNS,
  /** It provably does not run any more. */
  GONE,
  /** The host does not tell, so it may run. */
  UNKNOWN
}
