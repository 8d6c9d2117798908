package jollycrate.host;

/** The connection to another machine ended while something was asked: what became of it is open. */
public final class LineCutException extends HostException {
  private static final long serialVersionUID = 1L;

  /** With what the connection said. */
  public LineCutException(String why) {
    super("Cannot go on: the connection was cut (" + why + ")");
  }
}
