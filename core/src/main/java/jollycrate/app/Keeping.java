package jollycrate.app;

/**
 * How much of what was is kept on a server.
 *
 * @param log of a service
 * @param releases most earlier releases of an application that can be rolled back to
 * @param space most bytes that their files may take up together
 */
public record Keeping(ServerLog log, int releases, long space) {
  /** When nothing is said. */
  public static final Keeping USUAL = new Keeping(ServerLog.USUAL, 3, 500_000_000);
}
