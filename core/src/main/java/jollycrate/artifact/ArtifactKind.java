package jollycrate.artifact;

/** What an archive is, by its layout. */
public enum ArtifactKind {
  WAR("WAR"),
  EXECUTABLE_WAR("executable WAR"),
  EXECUTABLE_JAR("executable JAR"),
  PROGRAM_ARCHIVE("executable JAR with libraries beside, as one archive"),
  LIBRARY_JAR("library JAR"),
  EAR("EAR"),
  ARCHIVE("archive of another kind");

  private final String label;

  ArtifactKind(String label) {
    this.label = label;
  }

  /** How people call it. */
  public String label() {
    return label;
  }

  /** Whether a servlet container takes it. */
  public boolean isWar() {
    return this == WAR || this == EXECUTABLE_WAR;
  }
}
