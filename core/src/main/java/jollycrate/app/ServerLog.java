package jollycrate.app;

/**
 * How long the log of a service is kept.
 *
 * @param size of one file in bytes
 * @param keep number of full files that stay
 */
public record ServerLog(long size, int keep) {
  /** When nothing is said. */
  public static final ServerLog USUAL = new ServerLog(10_000_000, 5);
}
