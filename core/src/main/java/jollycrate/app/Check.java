package jollycrate.app;

import java.util.Optional;

/**
 * One request and what is expected of its answer.
 *
 * @param page whether what the page refers to is asked for, too
 * @param fromHost whether it is asked on the server's own machine, and not from here
 * @param cell of the table of who may see what; empty for any other check
 */
public record Check(
    String name, Ask ask, Expect expect, boolean page, boolean fromHost, Optional<Cell> cell) {
  /**
   * Whether somebody may see something.
   *
   * @param user empty: nobody who is logged in
   */
  public record Cell(String path, Optional<String> user, boolean allowed) {
    /** How people who are not logged in are called. */
    public static final String ANYONE = "anyone";

    /** Who it is. */
    public String who() {
      return user.orElse(ANYONE);
    }
  }

  /** One of its own. */
  public Check(String name, Ask ask, Expect expect) {
    this(name, ask, expect, false, false, Optional.empty());
  }
}
