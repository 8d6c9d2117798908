package jollycrate.host;

import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;

/** A verb that a host could not carry out; the message names the path or program and the reason. */
public final class HostException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public HostException(String message) {
    super(message);
  }

  /** A sentence made of what was tried, on what, and why it failed. */
  public static HostException cannot(String verb, Path path, Exception cause) {
    return new HostException("Cannot " + verb + " '" + path + "': " + reason(cause));
  }

  private static String reason(Exception cause) {
    if (cause instanceof AccessDeniedException) {
      return "permission denied";
    }
    if (cause instanceof NoSuchFileException) {
      return "there is no such file";
    }
    if (cause instanceof FileSystemException e && e.getReason() != null) {
      return e.getReason();
    }
    return cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
  }
}
