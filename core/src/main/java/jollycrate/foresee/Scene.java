package jollycrate.foresee;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import jollycrate.host.Account;
import jollycrate.host.Fact;
import jollycrate.host.Identity;
import jollycrate.host.Ran;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Splicer;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.stock.ConnectionTrial;

/**
 * Everything that rules look at.
 *
 * @param occupants of the server's context paths
 * @param trial opens connections from where the server runs
 * @param freeBytes on the server's disk
 * @param writable whether this user may write at a path
 * @param account as whom the server runs, when that is not this user
 * @param acceptors who accepts the requests that a front gets; none without a front
 * @param splicers how fragments stand in a file
 * @param accepted what people lose by it and was asked for by name
 */
public record Scene(
    Stock stock,
    Traits traits,
    Order order,
    Wanted wanted,
    List<Occupant> occupants,
    ConnectionTrial trial,
    long freeBytes,
    Predicate<Path> writable,
    Optional<Account> account,
    Fact<Set<Identity>> acceptors,
    Function<Path, Optional<Splicer>> splicers,
    Commands commands,
    Set<String> accepted) {

  /** Runs programs on the host to their ends. */
  @FunctionalInterface
  public interface Commands {
    /** Runs one with a text on its standard input. */
    Ran run(List<String> command, String input);

    /** Runs one with nothing on its standard input. */
    default Ran run(List<String> command) {
      return run(command, "");
    }
  }

  Optional<Standing.Owner> owner() {
    return stock.standing().owner(order.application().name());
  }
}
