package jollycrate.foresee;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import jollycrate.app.ContextPath;
import jollycrate.host.Access;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** The context path and the ports are free or ours, and the disk has room. */
public final class PlaceRule implements Rule {
  private static final int ROOM_FACTOR = 3;

  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings = new ArrayList<>();
    path(scene, findings);
    room(scene, findings);
    findings.addAll(look(scene.stock(), scene.writable()));
    Path works = server(scene).folder().resolve(scene.order().application().program().folder());
    if (!scene.traits().hosts()
        && !scene.writable().test(works)
        && scene.stock().at(works).exists()) {
      findings.add(
          Finding.warn(
              server(scene).shown(works),
              "the program may not write in the folder where it works",
              "",
              "Fix the folder's rights, unless the program only reads there"));
    }
    scene
        .order()
        .application()
        .context()
        .host()
        .map(
            host ->
                Finding.note(
                    host,
                    scene.traits().hosts()
                        ? "people reach it by this name alone, which has to lead to this server"
                        : "a program of its own answers by whatever name it is asked"))
        .ifPresent(findings::add);
    return findings;
  }

  /**
   * Of any act.
   *
   * @param writable whether this user may write at a path
   */
  public static List<Finding> look(Stock stock, Predicate<Path> writable) {
    Path folder = stock.server().folder();
    Access access = stock.access();
    return writable.test(folder)
        ? List.of()
        : List.of(
            Finding.blocker(
                folder.toString(),
                "this user cannot write in the server's folder",
                access.mode() + " " + access.owner() + ":" + access.group(),
                "Run as "
                    + access.owner()
                    + ", fix the folder's rights, or its disk if that can only be read"));
  }

  private static Server server(Scene scene) {
    return scene.stock().server();
  }

  private static void path(Scene scene, List<Finding> findings) {
    Placement placement = scene.wanted().placement();
    String shown = ContextPath.shown(placement.route().contextPath());
    scene.occupants().stream()
        .filter(occupant -> occupant.listener().equals(placement.route().listener()))
        .filter(occupant -> occupant.contextPath().equals(placement.route().contextPath()))
        .filter(occupant -> !oursAt(scene, occupant.path()))
        .findFirst()
        .ifPresent(
            occupant ->
                findings.add(
                    Finding.blocker(
                        shown,
                        holder(scene, occupant.path()) + " stands at this context path",
                        scene.stock().server().shown(occupant.path()),
                        "Choose another 'path' in [app], or remove that first")));
  }

  private static boolean oursAt(Scene scene, Path path) {
    return scene
        .owner()
        .map(Standing.Owner::placement)
        .filter(old -> old.switchPath().equals(path) || old.made().traces().contains(path))
        .isPresent();
  }

  private static String holder(Scene scene, Path path) {
    return scene.stock().standing().applications().stream()
        .filter(
            owner ->
                owner.placement().switchPath().equals(path)
                    || owner.placement().made().traces().contains(path))
        .findFirst()
        .map(owner -> "'" + owner.name() + "'")
        .orElse("something that Jolly Crate did not deliver");
  }

  private static void room(Scene scene, List<Finding> findings) {
    long needed = scene.order().artifact().size() * ROOM_FACTOR;
    if (scene.freeBytes() < needed) {
      findings.add(
          Finding.blocker(
              scene.stock().server().folder().toString(),
              "its disk has "
                  + megabytes(scene.freeBytes())
                  + " free, and "
                  + megabytes(needed)
                  + " are needed",
              "",
              "Make room there"));
    }
  }

  private static String megabytes(long bytes) {
    return String.format(Locale.ROOT, "%.1f MB", bytes / 1e6);
  }
}
