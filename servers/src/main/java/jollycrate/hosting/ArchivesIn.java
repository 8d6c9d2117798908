package jollycrate.hosting;

import java.nio.file.Path;
import java.util.List;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/**
 * What stands in a folder whose archives a server deploys. Where an archive answers stands inside
 * it: of ours it is known, of others the name of the file says what holds unless they say
 * otherwise.
 *
 * @param folder of them
 * @param root name of the archive that answers at the root by itself; empty where none does
 */
public record ArchivesIn(Path folder, String root) {
  private static final String ARCHIVE = ".war";

  /** Where the archive of an application stands. */
  public Path of(String application) {
    return folder.resolve(application + ARCHIVE);
  }

  /** What the server writes beside an archive, called like it with these endings. */
  public List<Path> beside(Path archive, List<String> endings) {
    return endings.stream()
        .map(ending -> archive.resolveSibling(archive.getFileName() + ending))
        .toList();
  }

  /** What is run from a folder has none. */
  public static void refuseFolder(Order order, Server server, Refusals refusals) {
    if (order.unfolded().isPresent()) {
      refusals.refuse(
          server.name(), "it takes archives only, not a folder", "Deliver to it instead");
    }
  }

  /** All that stand there. */
  public List<Occupant> occupants(Stock stock) {
    return stock.children().getOrDefault(folder, List.of()).stream()
        .filter(file -> file.toString().endsWith(ARCHIVE))
        .map(file -> occupant(stock, file))
        .toList();
  }

  private Occupant occupant(Stock stock, Path file) {
    return stock.standing().running().stream()
        .map(Standing.Owner::placement)
        .filter(placement -> placement.switchPath().equals(file))
        .map(Placement::route)
        .findFirst()
        .map(route -> new Occupant(route.listener(), route.contextPath(), file, true))
        .orElseGet(() -> new Occupant(Placement.MAIN, pathOf(file), file, true));
  }

  /** Where it is served by itself. */
  public String pathOf(Path file) {
    String name = Delivered.baseName(file);
    return name.equals(root) ? "" : "/" + name;
  }
}
