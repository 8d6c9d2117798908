package jollycrate.server;

/** Something that servers of a kind have, and others have not. */
public enum Feature {
  /**
   * One process hosts every application, and listens without any; else each application is a
   * process of its own.
   */
  HOSTS,
  /** It looks at what its switches say: one that is put again as it was is not noticed. */
  LOOKS_AT_CONTENT,
  /** A listener for HTTPS whose certificate we put there. */
  HTTPS,
  /** A second listener, on loopback only, which serves applications of its own. */
  ADMIN_LISTENER
}
