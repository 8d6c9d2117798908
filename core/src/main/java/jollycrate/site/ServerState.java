package jollycrate.site;

import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.delivery.ServerService;
import jollycrate.host.HostException;
import jollycrate.host.UnreachableException;
import jollycrate.server.Placement;
import jollycrate.server.Presence;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Site;

/**
 * One described server as it stands now.
 *
 * @param kind label of its kind and version
 * @param pid 0 when it does not run
 * @param trouble what keeps it from being looked at or needs settling; may be empty
 */
public record ServerState(
    String name,
    String kind,
    String folder,
    String address,
    int admin,
    Fare fare,
    long pid,
    List<Standing> applications,
    String trouble) {

  /** An application that stands there. */
  public record Standing(String name, String version, String address) {}

  /** Whether its process runs. */
  public enum Fare {
    RUNS,
    /** It runs, and somebody else started it. */
    STARTED_BY_ANOTHER,
    STOPPED,
    UNKNOWN
  }

  private static Fare fare(Presence presence) {
    if (presence.isStopped()) {
      return Fare.STOPPED;
    }
    return presence
        .found()
        .map(running -> running.ours() ? Fare.RUNS : Fare.STARTED_BY_ANOTHER)
        .orElse(Fare.UNKNOWN);
  }

  /** Of a described server; what keeps it from being looked at is its trouble. */
  public static ServerState of(
      ServerEntry entry,
      Function<ServerEntry, Site> sites,
      Function<ServerEntry, ServerService> services) {
    try {
      Site site = sites.apply(entry);
      return site.host().sight().once(() -> seen(entry, site, services.apply(entry)));
    } catch (NotDescribedException | HostException | UnreachableException | RecordsException e) {
      return new ServerState(
          entry.name(),
          "",
          entry.place(),
          addressOf(entry.ports()),
          entry.ports().admin().orElse(0),
          Fare.UNKNOWN,
          0,
          List.of(),
          e.getMessage());
    }
  }

  private static ServerState seen(ServerEntry entry, Site site, ServerService service) {
    site.host().sight().ahead(site.stockTaker().usual());
    Presence presence = site.stockTaker().presence();
    return new ServerState(
        entry.name(),
        site.traits().label(),
        entry.place(),
        addressOf(site.server().ports()),
        entry.ports().admin().orElse(0),
        fare(presence),
        presence.found().map(found -> found.identity().pid()).orElse(0L),
        service.placements().stream().map(ServerState::standing).toList(),
        Stream.concat(
                service.unfinished().stream(),
                service.troubles().stream().map(cause -> cause.what() + ". " + cause.next()))
            .collect(Collectors.joining("\n")));
  }

  private static String addressOf(Ports ports) {
    return ports.publicly("/").toString();
  }

  private static Standing standing(Placement placement) {
    return new Standing(
        placement.application(), placement.release().version(), placement.address());
  }
}
