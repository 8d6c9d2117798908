package jollycrate.hosting;

import java.util.Optional;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Server;

/** Where an order wants its application to answer, on a server with an admin listener of ours. */
public final class OrderedListener {
  private OrderedListener() {}

  /**
   * The listener; one that is not there is refused.
   *
   * @param refusals gets what is
   */
  public static String of(Server server, Order order, Refusals refusals) {
    Optional<String> host = order.application().context().host();
    if (!order.onAdminPort()) {
      return host.orElse(Placement.MAIN);
    }
    if (server.ports().admin().isEmpty()) {
      refusals.refuse(
          server.name(),
          "it has no admin listener",
          "Give it a port 'admin' in servers.toml, or deliver to a server that 'jolly server"
              + " new' made");
    }
    if (host.isPresent()) {
      refusals.refuse(
          "host", "the admin listener has no virtual hosts", "Leave out --on-admin-port");
    }
    return Placement.ADMIN;
  }
}
