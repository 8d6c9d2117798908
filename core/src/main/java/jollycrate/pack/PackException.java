package jollycrate.pack;

/** Something that cannot be packed; the message names the file and the fix. */
public final class PackException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public PackException(String message) {
    super(message);
  }
}
