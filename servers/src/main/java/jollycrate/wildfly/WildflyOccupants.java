package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.List;
import jollycrate.hosting.Delivered;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/**
 * What stands in the folder that a WildFly looks at. Where an archive answers stands inside it: of
 * ours it is known, of others the name of the file says what holds unless they say otherwise.
 */
final class WildflyOccupants {
  private static final String ARCHIVE = ".war";
  private static final String ROOT = "ROOT";

  private WildflyOccupants() {}

  static Path folder(Stock stock) {
    return stock.server().folder().resolve(Instance.DEPLOYMENTS);
  }

  static List<Occupant> of(Stock stock) {
    return stock.children().getOrDefault(folder(stock), List.of()).stream()
        .filter(file -> file.toString().endsWith(ARCHIVE))
        .map(file -> of(stock, file))
        .toList();
  }

  private static Occupant of(Stock stock, Path file) {
    return stock.standing().running().stream()
        .map(Standing.Owner::placement)
        .filter(placement -> placement.switchPath().equals(file))
        .map(Placement::route)
        .findFirst()
        .map(route -> new Occupant(route.listener(), route.contextPath(), file, true))
        .orElseGet(() -> new Occupant(Placement.MAIN, pathOf(file), file, true));
  }

  /** Where it is served by itself. */
  static String pathOf(Path file) {
    String name = Delivered.baseName(file);
    return name.equals(ROOT) ? "" : "/" + name;
  }
}
