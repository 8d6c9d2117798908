package jollycrate.artifact;

/** Class-file major versions and the Java release that reads them (JVMS 17, table 4.1-A). */
public final class JavaLevel {
  private static final int OFFSET = 44;

  private JavaLevel() {}

  /** The oldest Java feature release that loads a class file of that major version. */
  public static int javaOf(int major) {
    return major <= 48 ? Math.max(1, major - OFFSET) : major - OFFSET;
  }
}
