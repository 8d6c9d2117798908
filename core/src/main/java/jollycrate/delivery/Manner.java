package jollycrate.delivery;

import jollycrate.foresee.ChangedThere;

/**
 * How a delivery is to go about.
 *
 * @param dryRun whether it is only said what would be done
 * @param onAdminPort whether it goes to the admin listener
 * @param changedThere what becomes of pieces of ours that somebody changed on the server
 */
public record Manner(boolean dryRun, boolean onAdminPort, ChangedThere.Choice changedThere) {
  /** When nothing is said. */
  public static final Manner USUAL = new Manner(false, false, ChangedThere.Choice.ASK);
}
