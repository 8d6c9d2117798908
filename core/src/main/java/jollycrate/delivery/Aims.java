package jollycrate.delivery;

import jollycrate.artifact.Artifact;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.watch.Aim;
import jollycrate.watch.Site;

/**
 * Says what acts on a server are about.
 *
 * @param site where they go
 */
record Aims(Site site) {
  /** Of an act of which nothing more is known yet. */
  OutcomeBuilder builder(String act, String application) {
    Aim.Release nothingKnown = new Aim.Release(application, "", "", "", 0, "");
    return new OutcomeBuilder(new Aim(act, nothingKnown, site.place("")), site.time().now());
  }

  /** Of a release that is to be delivered. */
  Aim of(Order order, Wanted wanted, Source source, Stock stock) {
    Artifact artifact = order.artifact();
    String name = order.application().name();
    String earlier =
        stock.standing().owner(name).map(owner -> owner.placement().release().version()).orElse("");
    return new Aim(
        source.act(),
        new Aim.Release(
            name, order.version(), earlier, artifact.digest(), artifact.size(), source.revision()),
        site.place(address(order, wanted.placement())));
  }

  /** What speaks no HTTP is reached at a port, and no page. */
  private String address(Order order, Placement placement) {
    boolean pages = site.traits().hosts() || order.application().program().speaksHttp();
    return pages ? placement.address() : placement.route().direct().getAuthority();
  }

  /** Of what stands there. */
  Aim of(String act, Placement placement) {
    Placement.Release release = placement.release();
    return new Aim(
        act,
        new Aim.Release(
            release.application(), release.version(), release.version(), release.digest(), 0, ""),
        site.place(placement.address()));
  }
}
