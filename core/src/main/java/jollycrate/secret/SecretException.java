package jollycrate.secret;

/** A reference that leads to no value. */
public final class SecretException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public SecretException(String message) {
    super(message);
  }
}
