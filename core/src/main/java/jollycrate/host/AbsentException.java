package jollycrate.host;

import java.nio.file.Path;

/** What was to be read is not there, or not any more. */
public final class AbsentException extends HostException {
  private static final long serialVersionUID = 1L;

  /** With what was tried, and on what. */
  public AbsentException(String verb, Path path) {
    super("Cannot " + verb + " '" + path + "': there is no such file");
  }
}
