package jollycrate.site;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import jollycrate.app.ServerEntry;
import jollycrate.host.Host;

/**
 * Ports for a new server.
 *
 * @param name of the server, for messages
 * @param at the machine that it is to be on
 * @param others that are described for that machine
 */
record FreePorts(String name, Host at, List<ServerEntry> others) {
  private static final int LAST_PORT = 65_535;

  /**
   * The port that is asked for, or the first that is free.
   *
   * @param key by which it is asked for
   * @param address that it is to be bound to; empty: any
   * @throws jollycrate.app.NotDescribedException when somebody has it
   */
  int port(Optional<Integer> asked, String key, int from, String address) {
    int port = asked.orElseGet(() -> freeFrom(from, address));
    holder(port, address)
        .ifPresent(
            by -> {
              throw ServerFoundation.cannot(
                  name,
                  "of port " + port + " for " + key + ", " + by,
                  "Choose another --" + key + ", or end that program");
            });
    return port;
  }

  /** The first port from one on that nobody has. */
  int freeFrom(int first, String address) {
    return IntStream.rangeClosed(first, LAST_PORT)
        .filter(port -> holder(port, address).isEmpty())
        .findFirst()
        .orElse(first);
  }

  private Optional<String> holder(int port, String address) {
    for (ServerEntry other : others) {
      boolean has =
          Stream.of(
                  Optional.of(other.ports().http()), other.ports().admin(), other.ports().beside())
              .anyMatch(held -> held.filter(number -> number == port).isPresent());
      if (has) {
        return Optional.of("server '" + other.name() + "' has it");
      }
    }
    return at.processes()
        .listening(port, address)
        .orElse(Optional.empty())
        .map(other -> other.who() + " listens on it");
  }
}
