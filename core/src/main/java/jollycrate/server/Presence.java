package jollycrate.server;

import java.util.Optional;

/** Whether a server runs. */
public sealed interface Presence {
  /** Its process was found. */
  record Runs(Running process) implements Presence {}

  /** It provably does not run. */
  record Stopped() implements Presence {}

  /** It may run: what would tell cannot be read. */
  record Unknown(String why) implements Presence {}

  /** Whether it provably does not run. */
  default boolean isStopped() {
    return this instanceof Stopped;
  }

  /** Its process, when that was found; an empty answer is no proof that there is none. */
  default Optional<Running> found() {
    return this instanceof Runs runs ? Optional.of(runs.process()) : Optional.empty();
  }

  /** Why it cannot be told; empty when it can. */
  default Optional<String> unread() {
    return this instanceof Unknown unknown ? Optional.of(unknown.why()) : Optional.empty();
  }
}
