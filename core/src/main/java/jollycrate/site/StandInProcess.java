package jollycrate.site;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import jollycrate.app.NotDescribedException;
import jollycrate.host.Fact;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostProcesses;
import jollycrate.host.Launch;
import jollycrate.host.Life;
import jollycrate.host.Program;
import jollycrate.host.StandIn;
import jollycrate.host.StandIns;
import jollycrate.host.Time;

/**
 * The process of a practice host.
 *
 * @param host this machine
 * @param java home of the Java that it runs on
 * @param folder of the practice host
 */
record StandInProcess(Host host, Path java, Time time, String name, Path folder) {
  private static final Duration TURNS_WITHIN = Duration.ofSeconds(30);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);
  private static final int MOST_SHOWN = 300;
  private static final int MOST_BYTES = 1 << 20;

  /** Starts it, and waits until its rules are in force. */
  void start(StandIns kit) {
    List<String> command = new ArrayList<>(List.of(java.resolve("bin/java").toString()));
    command.addAll(kit.arguments(folder));
    host.files().delete(StandIn.inForce(folder));
    host.processes()
        .start(
            new Launch(
                command,
                StandIn.home(folder),
                folder,
                host.environment(),
                List.of(),
                log(),
                List.of()),
            UUID.randomUUID().toString(),
            folder.resolve("process.pid"));
    awaitInForce();
  }

  private Path log() {
    return folder.resolve("stand-in.log");
  }

  /** Waits until it goes by what is written. */
  void awaitInForce() {
    time.until(() -> isInForce() || !runs(), TURNS_WITHIN, LOOK_AGAIN, () -> {});
    if (!isInForce()) {
      throw new NotDescribedException(
          "Cannot start practice host '" + name + "': " + lastWords() + ". Its log is " + log());
    }
  }

  private boolean isInForce() {
    byte[] told = host.files().whole(StandIn.inForce(folder), MOST_BYTES);
    return Arrays.equals(told, host.files().whole(StandIn.in(folder), MOST_BYTES));
  }

  private String lastWords() {
    long size = host.files().facts(log()).size();
    byte[] end = host.files().read(log(), Math.max(0, size - MOST_SHOWN), MOST_SHOWN);
    return new String(end, StandardCharsets.UTF_8)
        .lines()
        .filter(line -> !line.isBlank() && !line.startsWith("\t"))
        .reduce((one, other) -> other)
        .orElse("it does not answer");
  }

  /** Ends it, and waits until it is gone. */
  void end() {
    for (Program running : running()) {
      host.processes().signal(running.identity(), HostProcesses.Signal.TERM);
      boolean gone =
          time.until(
              () -> host.processes().life(running.identity()) == Life.GONE,
              TURNS_WITHIN,
              LOOK_AGAIN,
              () -> {});
      if (!gone) {
        throw new HostException(
            "Cannot stop '" + name + "': process " + running.identity().pid() + " does not end");
      }
    }
  }

  /** Ends what is seen of one that did not come up. */
  void kill() {
    found()
        .orElse(List.of())
        .forEach(seen -> host.processes().signal(seen.identity(), HostProcesses.Signal.KILL));
  }

  /** Whether it is not known to be down. */
  boolean mayRun() {
    return found().map(all -> !all.isEmpty()).orElse(true);
  }

  /**
   * Whether it runs.
   *
   * @throws HostException when that cannot be told
   */
  boolean runs() {
    return !running().isEmpty();
  }

  private List<Program> running() {
    Fact<List<Program>> found = found();
    found
        .unread()
        .ifPresent(
            why -> {
              throw new HostException(
                  "Cannot tell whether practice host '" + name + "' runs: " + why);
            });
    return found.orElse(List.of());
  }

  private Fact<List<Program>> found() {
    return host.processes().programs(StandIn.mark(folder));
  }
}
