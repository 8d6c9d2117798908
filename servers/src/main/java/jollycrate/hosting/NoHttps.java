package jollycrate.hosting;

import java.util.List;
import jollycrate.server.Server;
import jollycrate.server.Wanted;

/** What kinds of servers say that get no listener for HTTPS from here. */
public final class NoHttps {
  private NoHttps() {}

  /**
   * That, where it is asked for.
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
}
