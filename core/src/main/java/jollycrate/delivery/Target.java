package jollycrate.delivery;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import jollycrate.check.CheckResult;
import jollycrate.journal.EarlierRelease;
import jollycrate.server.Placement;
import jollycrate.server.Wanted;

/**
 * What a delivery is to reach.
 *
 * @param wanted empty: the application is to be removed
 * @param release what is to be kept of it, so that it can be delivered again; empty for a removal
 * @param ours digests of what we answer for, by key, where something of somebody else stays in it
 * @param dataSources JNDI names that the new release gets
 * @param checks runs the checks of the application
 * @param mask takes secrets out of what goes into our records
 */
record Target(
    String application,
    Optional<Wanted> wanted,
    Optional<EarlierRelease> release,
    Map<String, String> ours,
    List<String> dataSources,
    Function<Placement, List<CheckResult>> checks,
    UnaryOperator<String> mask) {

  static Target removal(String application, UnaryOperator<String> mask) {
    return new Target(
        application,
        Optional.empty(),
        Optional.empty(),
        Map.of(),
        List.of(),
        placement -> List.of(),
        mask);
  }

  String act() {
    return wanted.isEmpty() ? "undeploy" : restores() > 0 ? "rollback" : "deploy";
  }

  int restores() {
    return release.map(EarlierRelease::restores).orElse(0);
  }

  /** Digest of the resolved description; empty for a removal. */
  String description() {
    return release.map(EarlierRelease::description).orElse("");
  }

  /** Of the source, as far as it is known. */
  String revision() {
    return release.map(EarlierRelease::revision).orElse("");
  }
}
