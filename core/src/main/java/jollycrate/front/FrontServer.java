package jollycrate.front;

import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.app.Front;
import jollycrate.host.Fact;
import jollycrate.host.Identity;
import jollycrate.host.Ran;
import jollycrate.server.Cause;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** A web server before services: checks its configuration and reads it. */
public final class FrontServer {
  private static final Duration COMMAND_LIMIT = Duration.ofSeconds(20);
  private static final Duration FOLLOWS_WITHIN = Duration.ofSeconds(15);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(20);
  private static final int MOST_EVIDENCE = 4;

  private final Site site;
  private final Progress progress;

  public FrontServer(Site site, Progress progress) {
    this.site = site;
    this.progress = progress;
  }

  /**
   * Has the front check its configuration and read it; returns once no process accepts requests any
   * more that did so by the earlier one.
   *
   * @throws StepFailed when the front refuses
   */
  public void reload(Front front) {
    run(front.test(), "does not accept its configuration", front);
    Set<Identity> before = acceptors(front);
    run(front.reload(), "does not read its configuration", front);
    boolean follows =
        site.time()
            .until(
                () -> renewed(before, acceptors(front)),
                FOLLOWS_WITHIN,
                LOOK_AGAIN,
                () -> progress.waitingFor("the web server at " + front.address() + " to follow"));
    if (!follows) {
      throw new StepFailed(
          Cause.of(
              "the web server at "
                  + front.address()
                  + " goes on with its earlier configuration: no other process has come to"
                  + " accept requests within "
                  + FOLLOWS_WITHIN.toSeconds()
                  + " s",
              "Look whether 'reload' of the front in servers.toml speaks to that very web server,"
                  + " and into its error log"));
    }
  }

  /** Without seeing who accepts requests it cannot be told by which configuration. */
  private Set<Identity> acceptors(Front front) {
    Fact<Set<Identity>> acceptors = site.host().processes().acceptors(front.port());
    Optional<String> why = acceptors.unread();
    Set<Identity> seen = acceptors.orElse(Set.of());
    if (why.isPresent() || seen.isEmpty()) {
      throw new StepFailed(
          Cause.of(
              "whether the web server at "
                  + front.address()
                  + " follows cannot be told: "
                  + why.orElse("no process listens on its port any more"),
              "Run as a user who may see its processes, or start it"));
    }
    return seen;
  }

  /** All but the one that opened the port are others than before. */
  private static boolean renewed(Set<Identity> before, Set<Identity> now) {
    Set<Identity> stayed = new HashSet<>(now);
    stayed.retainAll(before);
    return now.size() > stayed.size() && stayed.size() <= 1;
  }

  private void run(List<String> command, String refusal, Front front) {
    Ran ran =
        site.host()
            .processes()
            .run(command, front.config().getParent(), site.host().environment(), "", COMMAND_LIMIT);
    if (ran.exit() != 0) {
      List<String> words =
          Stream.concat(ran.errors().lines(), ran.output().lines())
              .filter(line -> !line.isBlank())
              .limit(MOST_EVIDENCE)
              .toList();
      throw new StepFailed(
          new Cause(
              "the web server at " + front.address() + " " + refusal,
              front.config().toString(),
              words,
              "Try '" + String.join(" ", command) + "' by hand",
              -1));
    }
  }
}
