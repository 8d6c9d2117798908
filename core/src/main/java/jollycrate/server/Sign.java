package jollycrate.server;

/** What the evidence says. */
public sealed interface Sign {
  /** Nothing is decided yet. */
  record Waiting(String what) implements Sign {}

  /** What was expected is so. */
  record Reached() implements Sign {}

  /** It will not happen any more. */
  record Failed(Cause cause) implements Sign {}
}
