package jollycrate.control;

import jollycrate.server.Cause;

/** A server that does not start. */
public final class ServerStartException extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final transient Cause cause;

  public ServerStartException(Cause cause) {
    super(cause.what());
    this.cause = cause;
  }

  /** Why, as far as it is known. */
  public Cause why() {
    return cause;
  }
}
