package jollycrate.script;

/** What becomes of a script that was cut off while it was applied or undone. */
public enum HalfApplied {
  /** Nothing is touched; whoever delivers is asked. */
  ASK,
  /** It counts as applied. */
  DONE,
  /** It is applied again. */
  AGAIN
}
