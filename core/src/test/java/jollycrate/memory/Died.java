package jollycrate.memory;

/** The process that carried out was killed. */
public final class Died extends Error {
  private static final long serialVersionUID = 1L;
}
