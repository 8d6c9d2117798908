package jollycrate.maven;

/** A file of a Maven repository that cannot be had; the message says which, where and why. */
public final class MavenException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  MavenException(String message) {
    super(message);
  }
}
