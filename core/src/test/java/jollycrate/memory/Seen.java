package jollycrate.memory;

import java.util.Map;
import java.util.Optional;

/** What can be told of a world from outside. */
record Seen(
    Map<String, String> files,
    Optional<String> answer,
    boolean runs,
    Map<String, String> database) {
  static Seen of(World world) {
    return new Seen(
        world.files(), world.server.answer("a"), world.server.runs(), world.host.database.seen());
  }
}
