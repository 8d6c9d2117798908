package jollycrate.foresee;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import jollycrate.app.Context;
import jollycrate.app.ContextPath;
import jollycrate.host.Access;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** The context path and the ports are free or ours, and the disk has room. */
public final class PlaceRule implements Rule {
  private static final int ROOM_FACTOR = 3;
  private static final long LARGE = 100L << 20;
  private static final long LEAST_HEAP = 64L << 20;

  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings = new ArrayList<>();
    path(scene, findings);
    room(scene, findings);
    heap(scene).ifPresent(findings::add);
    time(scene).ifPresent(findings::add);
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
                        fix(scene, occupant))));
  }

  private static String fix(Scene scene, Occupant occupant) {
    Server server = server(scene);
    Optional<String> ours =
        scene.stock().standing().applications().stream()
            .filter(
                owner ->
                    owner.placement().switchPath().equals(occupant.path())
                        || owner.placement().made().traces().contains(occupant.path()))
            .map(Standing.Owner::name)
            .findFirst();
    if (ours.isPresent()) {
      return "Choose another 'path' in [app], or 'jolly undeploy "
          + ours.get()
          + " --from "
          + server.name()
          + "' first";
    }
    String file = server.shown(occupant.path());
    return "Choose another 'path' in [app]. To bring it under jolly: copy what the application"
        + " wrote into its folder, and its data sources into jolly.toml; then delete "
        + file
        + ", which ends it at once and takes its unpacked folder along, and deliver";
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

  /** Looking for annotations takes a large application longer than any other part of its start. */
  private static Optional<Finding> time(Scene scene) {
    Context context = scene.order().application().context();
    boolean large = scene.order().artifact().size() > LARGE;
    return large && context.startsWithin().compareTo(Context.STARTS_WITHIN) <= 0
        ? Optional.of(
            Finding.note(
                "starts-within",
                context.startsWithin().toSeconds()
                    + "s may be short for an archive of "
                    + megabytes(scene.order().artifact().size())
                    + "; [app] of jolly.toml can give it more"))
        : Optional.empty();
  }

  /** Below that, servers of every kind spend their time collecting garbage before they are up. */
  private static Optional<Finding> heap(Scene scene) {
    Server server = server(scene);
    long heap = server.runtime().jvm().memoryBytes();
    long needed = LEAST_HEAP + scene.order().artifact().size();
    return heap < needed && server.steering().starting().isEmpty()
        ? Optional.of(
            Finding.warn(
                "memory",
                "a heap of "
                    + server.runtime().jvm().memory()
                    + " is little for an archive of "
                    + megabytes(scene.order().artifact().size()),
                "",
                "Give it more: 'jolly server change " + server.name() + " memory=512m'"))
        : Optional.empty();
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
