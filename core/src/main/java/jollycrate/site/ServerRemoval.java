package jollycrate.site;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersEdit;
import jollycrate.app.Steering;
import jollycrate.delivery.ServerService;
import jollycrate.host.HostFiles;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.stock.Space;
import jollycrate.watch.Site;

/**
 * Removes a server that nothing stands on any more.
 *
 * @param folder its own, which goes with it; none when people had it before us
 * @param paths what goes: all that stands in that folder, or our records in one that stays
 * @param removed whether it was done, or is only told
 */
public record ServerRemoval(String server, String folder, List<Space> paths, boolean removed) {

  /**
   * Says what goes, and removes it when that is meant.
   *
   * @param file that describes the server
   * @throws NotDescribedException when something stands there, or may still run
   */
  public static ServerRemoval of(Site site, ServerService service, Path file, boolean meant) {
    service.recoverFirst();
    String name = site.server().name();
    Path folder = site.server().folder();
    boolean adopted = !site.server().steering().equals(Steering.OURS);
    boolean own = !adopted && !folder.equals(site.server().installation());
    Stock stock = site.stockTaker().take(List.of());
    nothingOfOursStands(stock, name);
    if (own) {
      mustBeEmpty(site, stock, name);
    }
    HostFiles files = site.files();
    List<Path> going = own ? files.list(folder) : records(site);
    List<Space> contents =
        going.stream().map(path -> Space.of(files, site.server(), path)).toList();
    if (meant) {
      service.mustBeIdle();
      takeOut(file, name);
      going.forEach(files::deleteTree);
      if (own) {
        files.deleteTree(folder);
      }
    }
    return new ServerRemoval(name, own ? folder.toString() : "", contents, meant);
  }

  private static List<Path> records(Site site) {
    Path records = site.server().records();
    return site.files().facts(records).exists() ? List.of(records) : List.of();
  }

  /** The same of a server whose folder is not there any more. */
  public static ServerRemoval ofEntry(ServerEntry entry, Path file, boolean meant) {
    if (meant) {
      takeOut(file, entry.name());
    }
    return new ServerRemoval(entry.name(), "", List.of(), meant);
  }

  private static void takeOut(Path file, String name) {
    try {
      ServersEdit.remove(file, name);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void nothingOfOursStands(Stock stock, String name) {
    String ours =
        stock.standing().applications().stream()
            .map(Standing.Owner::name)
            .collect(Collectors.joining(", "));
    if (!ours.isEmpty()) {
      throw cannot(
          name, ours + " stands there. Take it away first: jolly undeploy APP --from " + name);
    }
  }

  private static void mustBeEmpty(Site site, Stock stock, String name) {
    String others =
        site.kind().occupants(stock).stream()
            .map(occupant -> site.server().shown(occupant.path()))
            .distinct()
            .collect(Collectors.joining(", "));
    if (!others.isEmpty()) {
      throw cannot(name, "somebody put " + others + " there. Take it away by hand first");
    }
    if (!stock.process().isStopped()) {
      throw cannot(
          name,
          stock.process().unread().orElse("it runs") + ". End it first: jolly server stop " + name);
    }
  }

  private static NotDescribedException cannot(String name, String reason) {
    return new NotDescribedException("Cannot remove server '" + name + "': " + reason);
  }
}
