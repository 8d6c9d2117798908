package jollycrate.artifact;

/** The package prefix of the servlet API a web application was compiled against. */
public enum ServletNamespace {
  /** Refers to neither. */
  NONE("none"),
  /** {@code javax.servlet}, up to Servlet 4.0. */
  JAVAX("javax"),
  /** {@code jakarta.servlet}, from Servlet 5.0 on. */
  JAKARTA("jakarta"),
  /** Refers to both. */
  BOTH("javax and jakarta");

  private final String label;

  ServletNamespace(String label) {
    this.label = label;
  }

  /** How people call it. */
  public String label() {
    return label;
  }

  /** What a compiled class refers to. */
  public static ServletNamespace of(byte[] classFile) {
    return ClassFile.read(classFile).map(c -> of(c.javax(), c.jakarta())).orElse(NONE);
  }

  static ServletNamespace of(boolean javax, boolean jakarta) {
    return javax ? (jakarta ? BOTH : JAVAX) : (jakarta ? JAKARTA : NONE);
  }
}
