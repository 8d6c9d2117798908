package jollycrate.app;

import java.nio.file.Path;

/**
 * One thing wrong in a file that people wrote.
 *
 * @param line counted from 1
 * @param column counted from 1
 * @param message what is wrong
 * @param fix what to write instead; may be empty
 */
public record Problem(Path file, int line, int column, String message, String fix) {

  /** As {@code file:line:column: message. fix}. */
  @Override
  public String toString() {
    String tail = fix.isEmpty() ? "" : ". " + fix;
    return file + ":" + line + ":" + column + ": " + message + tail;
  }
}
