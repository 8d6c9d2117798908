package jollycrate.memory;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What can be told of a world from outside. */
record Seen(
    Map<String, String> files,
    Optional<String> answer,
    boolean runs,
    Map<String, String> database) {
  private static final String MARK = ".mark";

  /** What the server writes of something that stands is its own matter. */
  static Seen of(World world) {
    Map<String, String> files = new TreeMap<>(world.files());
    files
        .keySet()
        .removeIf(file -> file.endsWith(MARK) && world.host.exists(switchOf(Path.of(file))));
    return new Seen(
        files, world.server.answer("a"), world.server.runs(), world.host.database.seen());
  }

  private static Path switchOf(Path mark) {
    String name = mark.getFileName().toString().replace(MARK, ".site");
    Path sites = World.FOLDER.resolve("sites").resolve(name);
    return name.contains("-") ? World.FOLDER.resolve("beside").resolve(name) : sites;
  }
}
