package jollycrate.server;

/** What the evidence says. */
public sealed interface Sign {
  /** Nothing is decided yet. */
  record Waiting(String what) implements Sign {}

  /**
   * The server is at rest and has not begun with it. When that goes on, the switch is put before it
   * once more, with a fresh time: for servers that may overlook one.
   */
  record Unnoticed(String what) implements Sign {}

  /** What was expected is so. */
  record Reached() implements Sign {}

  /** It will not happen any more. */
  record Failed(Cause cause) implements Sign {}
}
