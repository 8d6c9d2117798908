package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.server.Running;
import jollycrate.server.Stock;

/** Whether the server runs is known, and a running one was started by us. */
final class ProcessRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    return look(scene.stock());
  }

  static List<Finding> look(Stock stock) {
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
    Optional<Running> another = stock.process().found().filter(running -> !running.ours());
    another.ifPresent(
        running ->
            findings.add(
                Finding.blocker(
                    name,
                    "this server runs, and Jolly Crate did not start it: its output goes to where"
                        + " nobody could read what becomes of this change",
                    "process " + running.identity().pid(),
                    "'jolly server stop " + name + "' ends it; then do this again")));
    return findings;
  }
}
