package jollycrate.standalone;

/** A start that cannot be; the message names the reason and the fix. */
public final class Refusal extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public Refusal(String message) {
    super(message);
  }
}
