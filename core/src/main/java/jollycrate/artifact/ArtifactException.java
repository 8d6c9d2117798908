package jollycrate.artifact;

/** A file that cannot be read as an artifact; the message names the file and the reason. */
public final class ArtifactException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public ArtifactException(String message) {
    super(message);
  }
}
