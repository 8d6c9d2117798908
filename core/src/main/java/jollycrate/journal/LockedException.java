package jollycrate.journal;

import java.nio.file.Path;
import java.util.Optional;

/** Somebody else changes the server, or may do so. */
public final class LockedException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** Says so in other words. */
  public LockedException(String message) {
    super(message);
  }

  LockedException(Path file, Optional<Lock.Holder> holder) {
    super(
        "Cannot change this server: "
            + holder
                .map(
                    known ->
                        known.by()
                            + " (process "
                            + known.process().pid()
                            + ") has been changing it since "
                            + known.since())
                .orElse("somebody holds the lock '" + file + "'")
            + ". Wait until that ends, or end it with 'jolly recover --on NAME --take-over'");
  }
}
