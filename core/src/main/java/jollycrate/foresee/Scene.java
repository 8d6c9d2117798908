package jollycrate.foresee;

import java.util.List;
import java.util.Optional;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;

/**
 * Everything that rules look at.
 *
 * @param occupants of the server's context paths
 * @param trial opens connections from where the server runs
 * @param freeBytes on the server's disk
 * @param writable whether this user may write in the server's folder
 */
public record Scene(
    Stock stock,
    Traits traits,
    Order order,
    Wanted wanted,
    List<Occupant> occupants,
    ConnectionTrial trial,
    long freeBytes,
    boolean writable) {

  Optional<Standing.Owner> owner() {
    return stock.standing().owner(order.application().name());
  }
}
