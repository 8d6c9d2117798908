package jollycrate.host;

/** A machine that cannot be reached; the message says why and what to do. Nothing was touched. */
public final class UnreachableException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public UnreachableException(String message) {
    super(message);
  }
}
