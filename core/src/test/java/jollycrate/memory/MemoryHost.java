package jollycrate.memory;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.host.Account;
import jollycrate.host.Host;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Listening;
import jollycrate.host.Ran;
import jollycrate.host.Time;

/** A machine in memory, on which whoever changes something can be killed at any moment. */
public final class MemoryHost extends MemoryFiles implements HostProcesses, Time {
  private static final String BOOT = "boot";

  /** A started program. */
  private record Program(String token, long ticks) {}

  private final Map<Long, Program> programs = new HashMap<>();
  private final Map<Long, Instant> ending = new HashMap<>();
  private Instant now = Instant.parse("2026-03-01T08:00:00Z");
  private long lastPid = 100;
  private long self = 1;
  private int points;
  private int deadly = -1;
  private Optional<MemoryFront> front = Optional.empty();
  private Runnable reaction = () -> {};

  public Host host() {
    return new Host("memory", this, this, Map.of());
  }

  void fronted(MemoryFront there) {
    front = Optional.of(there);
  }

  /** What happens on this machine as time goes by. */
  public void reacts(Runnable server) {
    reaction = server;
  }

  /** Kills the next process at its n-th point of change. */
  public void killAt(int point) {
    points = 0;
    deadly = point;
    self++;
  }

  @Override
  void point() {
    points++;
    if (deadly > 0 && points >= deadly) {
      throw new Died();
    }
  }

  @Override
  public Instant now() {
    return now;
  }

  @Override
  public void pause(Duration duration) {
    now = now.plus(duration);
    ending.entrySet().stream()
        .filter(end -> !end.getValue().isAfter(now))
        .map(Map.Entry::getKey)
        .toList()
        .forEach(
            pid -> {
              programs.remove(pid);
              ending.remove(pid);
            });
    reaction.run();
  }

  public List<Long> running() {
    return List.copyOf(programs.keySet());
  }

  @Override
  public Identity start(Launch launch, String token, Path note) {
    point();
    long pid = ++lastPid;
    programs.put(pid, new Program(token, now.toEpochMilli()));
    point();
    quietly(note, "" + pid);
    return identity(pid);
  }

  private Identity identity(long pid) {
    return new Identity(BOOT, pid, programs.get(pid).ticks());
  }

  @Override
  public Optional<Identity> withToken(String token) {
    return programs.entrySet().stream()
        .filter(program -> program.getValue().token().equals(token))
        .map(program -> identity(program.getKey()))
        .findFirst();
  }

  @Override
  public Identity self() {
    return new Identity(BOOT, self, 0);
  }

  @Override
  public String boot() {
    return BOOT;
  }

  @Override
  public boolean alive(Identity process) {
    Program program = programs.get(process.pid());
    return process.pid() == self || program != null && program.ticks() == process.ticks();
  }

  @Override
  public Optional<Account> accountIn(Path folder) {
    return Optional.empty();
  }

  /** A program goes on for a moment after it was asked to end. */
  @Override
  public void signal(Identity process, Signal signal) {
    point();
    if (signal != Signal.QUIT && programs.containsKey(process.pid())) {
      ending.putIfAbsent(process.pid(), now.plusMillis(200));
    }
    point();
  }

  @Override
  public Ran run(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit) {
    point();
    Ran ran = front.map(there -> there.run(command)).orElseThrow();
    point();
    return ran;
  }

  @Override
  public Optional<Listening> listening(int port) {
    if (port == 80) {
      return front.map(there -> new Listening(port, 900, "front"));
    }
    return programs.keySet().stream().findFirst().map(pid -> new Listening(port, pid, "server"));
  }

  @Override
  public Set<Integer> ports(Collection<Identity> processes) {
    return processes.stream().anyMatch(this::alive) ? Set.of(8080) : Set.of();
  }

  @Override
  public Set<Identity> acceptors(int port) {
    return front.map(MemoryFront::acceptors).orElse(Set.of());
  }

  @Override
  public long memory(Identity process) {
    return 0;
  }

  @Override
  public long connections(int port) {
    return 0;
  }
}
