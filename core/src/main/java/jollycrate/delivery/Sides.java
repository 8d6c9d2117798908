package jollycrate.delivery;

import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import jollycrate.app.Check;
import jollycrate.check.Answer;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.People;
import jollycrate.check.Requester;
import jollycrate.server.Placement;
import jollycrate.watch.Site;

/**
 * From where checks ask.
 *
 * @param member asks the server that was delivered to, as people do where no proxy stands before it
 * @param inside asks the same on the server's own machine
 * @param way asks through the proxy by which people reach it; empty where there is none
 * @param silent names of checks to which nothing came back from outside
 */
record Sides(Checker member, Checker inside, Optional<Checker> way, Set<String> silent) {
  static Sides of(Site site, Placement placement, Requester there, Requester here, People people) {
    Placement.Route route = placement.route();
    boolean main = route.listener().equals(Placement.MAIN);
    boolean admin = route.listener().equals(Placement.ADMIN);
    if (!main && !admin) {
      there.leads(route.base().getHost(), route.direct().getHost());
      here.leads(route.base().getHost(), route.direct().getHost());
    }
    Checker inside = new Checker(there, main ? route.direct() : route.base(), people);
    boolean straight = route.base().equals(route.direct());
    boolean own = !main || (straight || site.server().ports().isOwn(route.base()));
    boolean fronted = site.server().front().isPresent();
    Checker member = admin || !own || fronted ? inside : new Checker(here, route.base(), people);
    Optional<Checker> way =
        own || straight ? Optional.empty() : Optional.of(new Checker(here, route.base(), people));
    return new Sides(member, inside, way, ConcurrentHashMap.newKeySet());
  }

  /** Where nothing came back once, nothing is waited for again. */
  CheckResult run(Check check) {
    if (check.manner().fromHost()) {
      return inside.run(check);
    }
    if (way.isPresent() && check.first().expect().certificateDays().isPresent()) {
      return way.get().run(check);
    }
    if (!silent.isEmpty()) {
      return member.notAsked(check, silent.iterator().next());
    }
    CheckResult result = member.run(check);
    if (result.why() == Answer.Why.SILENCE) {
      silent.add(result.name());
    }
    return result;
  }
}
