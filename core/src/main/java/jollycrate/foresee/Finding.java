package jollycrate.foresee;

import java.util.List;

/**
 * One thing foreseen.
 *
 * @param subject what it is about: a file, a JNDI name, a port, a user
 * @param message what is so
 * @param seen where it was seen; may be empty
 * @param fix what to do; empty for a note
 */
public record Finding(Level level, String subject, String message, String seen, String fix) {

  /** How much a finding weighs. */
  public enum Level {
    /** The delivery would fail: nothing is touched. */
    BLOCKER,
    /** The delivery may work, but not as somebody would expect. */
    WARN,
    /** Good to know. */
    NOTE
  }

  public static Finding blocker(String subject, String message, String seen, String fix) {
    return new Finding(Level.BLOCKER, subject, message, seen, fix);
  }

  public static Finding warn(String subject, String message, String seen, String fix) {
    return new Finding(Level.WARN, subject, message, seen, fix);
  }

  public static Finding note(String subject, String message) {
    return new Finding(Level.NOTE, subject, message, "", "");
  }

  /** The same where nothing is about to be done. */
  public Finding asWarn() {
    return level == Level.BLOCKER ? warn(subject, message, seen, fix) : this;
  }

  /** Whether any of them is a blocker. */
  public static boolean anyBlocker(List<Finding> findings) {
    return findings.stream().anyMatch(finding -> finding.level == Level.BLOCKER);
  }
}
