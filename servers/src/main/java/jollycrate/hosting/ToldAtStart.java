package jollycrate.hosting;

import java.util.List;
import jollycrate.server.Overhaul;
import jollycrate.server.Server;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;

/**
 * Servers that are told their ports when they are started, have no door that everybody knows, and
 * get their users with applications: nothing in their own files needs to be changed.
 */
public final class ToldAtStart {
  private ToldAtStart() {}

  /**
   * HTTPS, where it is asked for: they get no listener for it from here.
   *
   * @param kind as in the middle of a sentence
   */
  public static List<Wanted.Refused> contradictions(String kind, Server server) {
    return server.ports().https().stream()
        .map(
            tls ->
                new Wanted.Refused(
                    "https",
                    kind + " gets no listener for HTTPS from here",
                    "Take 'https' out of servers.toml, and put a web server before it"))
        .toList();
  }

  /** What has to be changed for a wish: nothing, or it cannot be. */
  public static Overhaul overhaul(Server server, List<Wanted.Refused> contradictions, Wish wish) {
    if (wish instanceof Wish.Users) {
      return Overhaul.refused(
          new Wanted.Refused(
              server.name(),
              "its users come and go with the applications that name them",
              "Write them into [users] and [roles] of jolly.toml, then deliver"));
    }
    return contradictions.stream().findFirst().map(Overhaul::refused).orElse(Overhaul.NONE);
  }
}
