package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.ContextPath;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/**
 * What people lose when one release takes the place of another: an address that answers, and their
 * sessions.
 */
public final class LossRule {
  private LossRule() {}

  /**
   * Of a placement that is to take the place of the one that stands.
   *
   * @param accepted what was asked for by name
   */
  public static List<Finding> look(
      Stock stock, Placement wanted, boolean switches, Set<String> accepted) {
    Optional<Standing.Owner> standing =
        stock
            .standing()
            .owner(wanted.application())
            .filter(owner -> !owner.isStopped() && !stock.process().isStopped());
    if (standing.isEmpty()) {
      return List.of();
    }
    List<Finding> findings = new ArrayList<>();
    Placement.Route now = standing.get().placement().route();
    Placement.Route then = wanted.route();
    String path = ContextPath.shown(now.contextPath());
    boolean hidden =
        !now.listener().equals(Placement.ADMIN) && then.listener().equals(Placement.ADMIN);
    if (hidden && !accepted.contains(path)) {
      findings.add(
          Finding.blocker(
              path,
              "people reach it now, and afterwards nobody does but by the admin listener",
              standing.get().placement().address(),
              "Deliver it to the public listener; if that is what you want: --accept " + path));
    } else if (!now.contextPath().equals(then.contextPath())
        || !now.listener().equals(then.listener())) {
      findings.add(
          Finding.warn(
              path,
              "afterwards nothing of it answers at " + standing.get().placement().address(),
              "it moves to " + wanted.address(),
              "Tell those who have the old address, or lead it on to the new one"));
    } else if (switches) {
      findings.add(Finding.note(path, "sessions of people who are logged in end with this"));
    }
    return findings;
  }
}
