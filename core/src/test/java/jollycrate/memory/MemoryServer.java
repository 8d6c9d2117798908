package jollycrate.memory;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A server that reacts as real ones do: it looks for changes now and then, explodes archives,
 * starts late, goes on answering with the old release, serves exploded folders that were left
 * behind, and is blocked by a release that hangs.
 */
public final class MemoryServer {
  private static final Pattern RELEASE = Pattern.compile("v\\d [a-z ]+");

  static final Duration SCAN = Duration.ofSeconds(1);

  /** A file of its own that it reads again while it runs. */
  static final String USERS = "users.conf";

  /** With this in the file that it reads at its start no application comes up. */
  static final String SPOILT = "applications: none\n";

  private static final Duration START = Duration.ofMillis(300);

  private final MemoryHost host;
  private final Path folder;
  private final Optional<MemoryFront> front;
  private final Map<String, Long> seen = new HashMap<>();
  private final Map<String, String> answers = new HashMap<>();
  private final Map<String, String> routes = new HashMap<>();
  private final Map<String, Instant> starting = new HashMap<>();
  private long pid;
  private Instant nextScan = Instant.MIN;
  private boolean blocked;
  private boolean spoilt;
  private long users;
  private String loses = "";
  private boolean overlooks;

  MemoryServer(MemoryHost host, Path folder, Optional<MemoryFront> front) {
    this.front = front;
    this.host = host;
    this.folder = folder;
    host.reacts(this::react);
  }

  /** From now on, what it unpacks of a release is gone as soon as that is up. */
  void loses(String release) {
    loses = release;
  }

  /** The next switch that is put is taken for one that was seen. */
  void overlooksOne() {
    overlooks = true;
  }

  /** What a request is answered; empty for 404. */
  Optional<String> answer(String name) {
    react();
    if (pid == 0) {
      return Optional.empty();
    }
    String target = front.flatMap(f -> f.target(name)).orElse(routes.getOrDefault(name, name));
    return Optional.ofNullable(answers.get(target));
  }

  boolean runs() {
    react();
    return pid != 0;
  }

  private void react() {
    long running = host.running().stream().findFirst().orElse(0L);
    if (running != pid) {
      pid = running;
      forget();
      if (pid != 0) {
        nextScan = host.now().plus(START);
        spoilt = host.text(folder.resolve("shared.conf")).contains(SPOILT);
        users = usersStamp();
      }
    }
    if (pid == 0) {
      return;
    }
    finishStarts();
    if (!blocked && !host.now().isBefore(nextScan)) {
      nextScan = host.now().plus(SCAN);
      scan();
    }
  }

  private void forget() {
    seen.clear();
    answers.clear();
    routes.clear();
    starting.clear();
    blocked = false;
  }

  private long usersStamp() {
    Path file = folder.resolve(USERS);
    return host.exists(file) ? host.stamp(file) : -1;
  }

  private void scan() {
    if (usersStamp() != users) {
      users = usersStamp();
      log("read " + USERS);
    }
    List<Path> switches = new ArrayList<>(host.children(folder.resolve("sites")));
    switches.addAll(host.children(folder.resolve("beside")));
    List<String> names = new ArrayList<>();
    for (Path file : switches) {
      String name = file.getFileName().toString();
      if (!name.endsWith(".site")) {
        continue;
      }
      names.add(base(name));
      if (overlooks && seen.getOrDefault(base(name), -1L) != host.stamp(file)) {
        overlooks = false;
        seen.put(base(name), host.stamp(file));
      }
      if (seen.getOrDefault(base(name), -1L) != host.stamp(file)) {
        drop(base(name));
        begin(base(name), file);
      }
    }
    for (String known : new TreeSet<>(seen.keySet())) {
      if (!names.contains(known)) {
        drop(known);
      }
    }
    for (Path left : host.children(folder.resolve("exploded"))) {
      String name = left.getFileName().toString();
      if (!names.contains(name)) {
        answers.put(name, host.text(left.resolve("release")));
      }
    }
    if (front.isEmpty()) {
      readRoutes();
    }
  }

  private void readRoutes() {
    Map<String, String> now = new HashMap<>();
    for (Path file : host.children(folder.resolve("routes"))) {
      if (file.toString().endsWith(".route")) {
        now.put(base(file.getFileName().toString()), host.text(file).strip());
      }
    }
    now.forEach(
        (name, target) -> {
          if (!target.equals(routes.get(name))) {
            log("route " + name + " " + target);
          }
        });
    routes.keySet().stream()
        .filter(name -> !now.containsKey(name))
        .forEach(n -> log("unroute " + n));
    routes.clear();
    routes.putAll(now);
  }

  private void drop(String name) {
    if (seen.remove(name) != null) {
      answers.remove(name);
      starting.remove(name);
      host.quietlyDelete(folder.resolve("exploded").resolve(name));
      log("drop " + name);
    }
  }

  /** What it makes of an archive and leaves behind. */
  static Path leftOf(Path folder, Path artifact) {
    return folder.resolve("left").resolve(artifact.getFileName());
  }

  /** Where it writes what became of a switch, and where that stays. */
  static Path markOf(Path folder, String name) {
    return folder.resolve("left").resolve(name + ".mark");
  }

  private void begin(String name, Path file) {
    log("begin " + name);
    seen.put(name, host.stamp(file));
    Path artifact = Path.of(host.text(file).strip());
    if (!host.exists(artifact)) {
      log("failed " + name + " no artifact");
      log("end " + name);
      return;
    }
    Path exploded = folder.resolve("exploded").resolve(name);
    if (!host.exists(exploded)) {
      host.quietFolder(exploded);
      Matcher release = RELEASE.matcher(host.text(artifact));
      host.quietly(exploded.resolve("release"), release.find() ? release.group() : "");
      host.quietFolder(folder.resolve("left"));
      host.quietly(leftOf(folder, artifact), "unpacked once more");
    }
    String release = host.text(exploded.resolve("release"));
    blocked = release.contains("hangs");
    if (!blocked) {
      starting.put(name, host.now().plus(START));
    }
  }

  private void finishStarts() {
    for (String name : new TreeSet<>(starting.keySet())) {
      if (host.now().isBefore(starting.get(name))) {
        continue;
      }
      starting.remove(name);
      String release = host.text(folder.resolve("exploded").resolve(name).resolve("release"));
      if (spoilt || release.contains("throws")) {
        log("failed " + name + " it threw");
        host.quietly(markOf(folder, name), "failed");
      } else {
        answers.put(name, release);
        host.quietly(markOf(folder, name), "up");
      }
      if (loses.equals(release)) {
        host.quietlyDelete(folder.resolve("exploded").resolve(name));
        answers.remove(name);
      }
      log("end " + name);
    }
  }

  private void log(String line) {
    host.quietlyAppend(folder.resolve("logs/log"), line + "\n");
  }

  private static String base(String name) {
    return name.substring(0, name.lastIndexOf('.'));
  }
}
