package jollycrate.delivery;

/** A command needs an application that does not stand on the server. */
public final class NotDeliveredException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  NotDeliveredException(String message) {
    super(message);
  }
}
