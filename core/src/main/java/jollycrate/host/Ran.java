package jollycrate.host;

/** How a program that ran to its end went; exit code -1 when it was ended for taking too long. */
public record Ran(int exit, String output, String errors) {
  /** Whether it was ended for taking too long. */
  public boolean tookTooLong() {
    return exit == -1;
  }
}
