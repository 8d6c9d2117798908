package jollycrate.browser;

/** A browser that did not do what it was asked for; the message says what. */
public final class BrowserException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  BrowserException(String message) {
    super(message);
  }
}
