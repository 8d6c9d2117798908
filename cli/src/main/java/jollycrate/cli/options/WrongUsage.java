package jollycrate.cli.options;

/** A command line that cannot be understood; the message says what is wrong with it. */
public final class WrongUsage extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With what is wrong, without a full stop. */
  public WrongUsage(String message) {
    super(message);
  }
}
