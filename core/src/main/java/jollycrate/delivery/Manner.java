package jollycrate.delivery;

import java.util.Set;
import jollycrate.foresee.ChangedThere;
import jollycrate.script.HalfApplied;

/**
 * How a delivery is to go about.
 *
 * @param dryRun whether it is only said what would be done
 * @param onAdminPort whether it goes to the admin listener
 * @param changedThere what becomes of pieces of ours that somebody changed on the server
 * @param halfApplied what becomes of scripts that were cut off while they were applied
 * @param accepted what people lose by it and was asked for by name: paths that nobody reaches any
 *     more, data sources whose database is a new one
 */
public record Manner(
    boolean dryRun,
    boolean onAdminPort,
    ChangedThere.Choice changedThere,
    HalfApplied halfApplied,
    Set<String> accepted) {
  /** When nothing is said. */
  public static final Manner USUAL =
      new Manner(false, false, ChangedThere.Choice.ASK, HalfApplied.ASK, Set.of());
}
