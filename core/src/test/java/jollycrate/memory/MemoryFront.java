package jollycrate.memory;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.host.Identity;
import jollycrate.host.Ran;

/** A web server before the one in memory: it reads where requests go only when it is told to. */
final class MemoryFront {
  static final List<String> TEST = List.of("front", "test");
  static final List<String> RELOAD = List.of("front", "reload");
  private static final Identity MASTER = new Identity("boot", "", 900, 1);

  private final MemoryHost host;
  private final Path folder;
  private final Map<String, String> routes = new HashMap<>();
  private long generation = 1;

  MemoryFront(MemoryHost host, Path folder) {
    this.host = host;
    this.folder = folder;
  }

  Ran run(List<String> command) {
    if (command.equals(RELOAD)) {
      generation++;
      routes.clear();
      for (Path file : host.children(folder)) {
        String name = file.getFileName().toString();
        if (name.endsWith(".route")) {
          routes.put(name.replace(".route", ""), host.text(file).strip());
        }
      }
    }
    return new Ran(0, "", "");
  }

  /** The opener of the port, and the process that accepts since the last reading. */
  Set<Identity> acceptors() {
    return Set.of(MASTER, new Identity("boot", "", 900 + generation, generation));
  }

  Optional<String> target(String application) {
    return Optional.ofNullable(routes.get(application));
  }
}
