package jollycrate.foresee;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Unit;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;

/** Whether the server runs is known, and a running one was started by us. */
public final class ProcessRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings =
        look(scene.stock(), isReadAtStart(scene) ? Swap.RESTART : scene.wanted().swap());
    Server server = scene.stock().server();
    server
        .steering()
        .program(server.folder())
        .filter(program -> program.contains("/"))
        .filter(program -> !isProgram(scene, program))
        .ifPresent(
            program ->
                findings.add(
                    Finding.blocker(
                        server.name(),
                        "its start command cannot be run",
                        program,
                        "Fix 'start' in servers.toml, or the file's rights")));
    return findings;
  }

  /** Whether something is to stand in a shared file that the server reads when it starts. */
  private static boolean isReadAtStart(Scene scene) {
    return scene.wanted().pieces().stream()
        .filter(piece -> piece.pickUp() == PickUp.RESTART)
        .filter(Piece.Fragment.class::isInstance)
        .map(Piece.Fragment.class::cast)
        .anyMatch(fragment -> !stands(scene, fragment));
  }

  private static boolean stands(Scene scene, Piece.Fragment fragment) {
    String text = scene.stock().text(fragment.path()).orElse("");
    return scene
        .splicers()
        .apply(fragment.path())
        .flatMap(splicer -> splicer.find(text, fragment.name()))
        .filter(fragment.text()::equals)
        .isPresent();
  }

  private static boolean isProgram(Scene scene, String file) {
    return scene.commands().run(List.of("/usr/bin/test", "-f", file, "-a", "-x", file)).exit() == 0;
  }

  /**
   * Of any act.
   *
   * @param swap how a release takes the place of another
   */
  public static List<Finding> look(Stock stock, Swap swap) {
    List<Finding> findings = new ArrayList<>();
    String name = stock.server().name();
    for (String unresolved : stock.server().runtime().unresolved()) {
      findings.add(
          Finding.blocker(
              name,
              "a variable that it is to be started with has no value",
              unresolved,
              "Give it its value, or take it out of [server." + name + ".variables]"));
    }
    stock
        .server()
        .runtime()
        .supply()
        .ifPresent(
            supply ->
                findings.add(
                    Finding.note(
                        "Java " + supply.feature(),
                        "it is not there yet, and unpacked there first, out of "
                            + supply.archive().getFileName())));
    stock
        .process()
        .unread()
        .ifPresent(
            why ->
                findings.add(
                    Finding.blocker(
                        name,
                        "whether this server runs cannot be told",
                        why,
                        "Run as the user who started it")));
    stock
        .process()
        .found()
        .filter(running -> !running.ours())
        .map(running -> another(stock.server(), running, swap))
        .ifPresent(findings::add);
    return findings;
  }

  /** What becomes of a change is read from the log, so the process must print there. */
  private static Finding another(Server server, Running running, Swap swap) {
    String process = "process " + running.identity().pid();
    String end = "'jolly server stop " + server.name() + "' ends it; then do this again";
    Optional<Path> log = server.steering().log().map(server.folder()::resolve);
    Optional<Unit> unit = server.steering().unit();
    if (unit.isPresent()) {
      return Finding.note(
          server.name(),
          "unit "
              + unit.get().name()
              + " runs it ("
              + process
              + "); it "
              + (swap == Swap.RESTART
                  ? "is restarted by its service manager"
                  : "goes on as it runs"));
    }
    if (log.isEmpty() || !log.map(Path::normalize).equals(running.printsTo())) {
      return Finding.blocker(
          server.name(),
          "this server runs, and Jolly Crate did not start it: its output goes to where nobody"
              + " could read what becomes of this change",
          process + where(running),
          running
              .printsTo()
              .map(file -> "Write log = \"" + server.shown(file) + "\" into servers.toml")
              .orElse(end));
    }
    if (swap == Swap.RESTART && !server.steering().hasItsOwn()) {
      return Finding.blocker(
          server.name(),
          "this needs a restart, and how to start it again as somebody else did is not described",
          process,
          "Write its 'start' command into servers.toml, or: " + end);
    }
    return Finding.note(
        server.name(),
        "somebody else started it ("
            + process
            + "); "
            + (swap == Swap.RESTART
                ? "it is stopped, and started again by its own 'start' command"
                : "it goes on as it runs"));
  }

  private static String where(Running running) {
    return running
        .output()
        .unread()
        .map(why -> "; where it prints cannot be told: " + why)
        .or(() -> running.printsTo().map(file -> " prints to " + file))
        .orElse("");
  }
}
