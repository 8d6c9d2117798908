package jollycrate.host;

import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import jollycrate.file.IoReason;

/** A verb that a host could not carry out; the message names the path or program and the reason. */
public class HostException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** With the whole sentence people read. */
  public HostException(String message) {
    super(message);
  }

  /** A sentence made of what was tried, on what, and why it failed. */
  public static HostException cannot(String verb, Path path, Exception cause) {
    return cause instanceof NoSuchFileException
        ? new AbsentException(verb, path)
        : new HostException("Cannot " + verb + " '" + path + "': " + IoReason.of(cause));
  }
}
