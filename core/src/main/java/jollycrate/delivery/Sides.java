package jollycrate.delivery;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import jollycrate.app.Check;
import jollycrate.check.Answer;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.People;
import jollycrate.check.Requester;
import jollycrate.server.Placement;

/**
 * From where checks ask.
 *
 * @param outside asks as people do
 * @param inside asks the same on the server's own machine
 * @param direct asks the program there without a web server before it
 * @param silent names of checks to which nothing came back from outside
 */
record Sides(Checker outside, Checker inside, Checker direct, Set<String> silent) {
  static Sides of(Placement placement, Requester there, Requester here, People people) {
    Placement.Route route = placement.route();
    boolean main = route.listener().equals(Placement.MAIN);
    boolean admin = route.listener().equals(Placement.ADMIN);
    if (!main && !admin) {
      there.leads(route.base().getHost(), route.direct().getHost());
      here.leads(route.base().getHost(), route.direct().getHost());
    }
    Checker inside = new Checker(there, main ? route.direct() : route.base(), people);
    Checker outside = admin ? inside : new Checker(here, route.base(), people);
    Checker direct = new Checker(there, route.direct(), people);
    return new Sides(outside, inside, direct, ConcurrentHashMap.newKeySet());
  }

  /** Where nothing came back once, nothing is waited for again. */
  CheckResult run(Check check) {
    if (check.manner().fromHost()) {
      return inside.run(check);
    }
    if (!silent.isEmpty()) {
      return outside.notAsked(check, silent.iterator().next());
    }
    CheckResult result = outside.run(check);
    if (result.why() == Answer.Why.SILENCE) {
      silent.add(result.name());
    }
    return result;
  }
}
