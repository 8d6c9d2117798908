package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import jollycrate.check.CheckResult;
import jollycrate.server.Placement;
import jollycrate.server.Wanted;

/**
 * What a delivery is to reach.
 *
 * @param wanted empty: the application is to be removed
 * @param description digest of the resolved description, empty for a removal
 * @param revision of the source, as far as it is known
 * @param dataSources JNDI names that the new release gets
 * @param checks runs the checks of the application
 * @param mask takes secrets out of what goes into our records
 */
record Target(
    String application,
    Optional<Wanted> wanted,
    String description,
    String revision,
    List<String> dataSources,
    Function<Placement, List<CheckResult>> checks,
    UnaryOperator<String> mask) {

  static Target removal(String application, UnaryOperator<String> mask) {
    return new Target(
        application, Optional.empty(), "", "", List.of(), placement -> List.of(), mask);
  }

  String act() {
    return wanted.isPresent() ? "deploy" : "undeploy";
  }
}
