package jollycrate.build;

/** Whether the project is built before it is packed. */
public enum BuildMode {
  /** When sources are newer than what was built. */
  WHEN_STALE,
  /** Always. */
  ALWAYS,
  /** Never. */
  NEVER
}
