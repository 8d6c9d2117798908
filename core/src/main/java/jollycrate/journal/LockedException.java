package jollycrate.journal;

import java.nio.file.Path;
import java.util.Optional;

/** Somebody else changes the server, or may do so. */
public final class LockedException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** Says so in other words. */
  public LockedException(String message, LockedException cause) {
    super(message, cause);
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
                .orElse("the lock '" + file + "' cannot be read")
            + ". Wait, or run 'jolly recover --on NAME --take-over' if that process is gone for"
            + " good");
  }
}
