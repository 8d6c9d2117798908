package jollycrate.build;

/** A build that failed. */
public final class BuildException extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final String output;

  BuildException(String message, String output) {
    super(message);
    this.output = output;
  }

  /** Everything the command printed. */
  public String output() {
    return output;
  }
}
