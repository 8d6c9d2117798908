package jollycrate.stock;

/** Our own records on a server cannot be understood. */
public final class RecordsException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public RecordsException(String message) {
    super(message);
  }
}
