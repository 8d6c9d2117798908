package jollycrate.journal;

import java.nio.file.Path;

/** The lock of a delivery under way is held by somebody else, or by nobody, by now. */
public final class OvertakenException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  OvertakenException(Path lock) {
    super(
        "Stopped at once: the lock '"
            + lock
            + "' was taken away while this delivery held it, so that whoever took it settles what is"
            + " unended. Run 'jolly recover --on NAME' to see that it is");
  }
}
