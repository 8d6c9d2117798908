package jollycrate.app;

/** A file, or an entry in it, that a command needs and that is not there. */
public final class NotDescribedException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public NotDescribedException(String message) {
    super(message);
  }
}
