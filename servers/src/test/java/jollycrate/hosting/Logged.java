package jollycrate.hosting;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Ports;
import jollycrate.host.Fact;
import jollycrate.host.Life;
import jollycrate.server.Evidence;
import jollycrate.server.Placement;

/** A placement, and what was logged of it by a server that runs and listens. */
public final class Logged {
  private Logged() {}

  /** The bell, at its path on the main listener. */
  public static Placement bell(String digest, String switchPath) {
    Ports ports =
        new Ports("127.0.0.1", 8080, Optional.empty(), Optional.empty(), Optional.empty());
    return new Placement(
        new Placement.Release("bell", "1", digest, List.of("shop")),
        Placement.Route.at(Placement.MAIN, "/bell", ports),
        Path.of(switchPath),
        Placement.Made.NOTHING,
        new Placement.Timing(Duration.ofSeconds(2), Duration.ofSeconds(60)));
  }

  /** Nothing but a log. */
  public static Evidence evidence(String log, int fresh, Duration since) {
    return new Evidence(
        log,
        fresh,
        since,
        false,
        Life.RUNS,
        Fact.known(true),
        Set.of(),
        Duration.ZERO,
        "",
        Evidence.Made.NOTHING);
  }
}
