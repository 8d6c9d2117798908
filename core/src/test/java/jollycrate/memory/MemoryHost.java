package jollycrate.memory;

import java.net.InetAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import jollycrate.host.Access;
import jollycrate.host.Account;
import jollycrate.host.Bean;
import jollycrate.host.Fact;
import jollycrate.host.Hold;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Life;
import jollycrate.host.Listening;
import jollycrate.host.Question;
import jollycrate.host.Ran;
import jollycrate.host.Sight;
import jollycrate.host.Time;

/** A machine in memory, on which whoever changes something can be killed at any moment. */
public final class MemoryHost extends MemoryFiles implements HostProcesses, Time {
  static final String SERVER = "server";
  private static final String BOOT = "boot";

  /** A started program. */
  private record Program(String token, long ticks) {}

  private final Map<Long, Program> programs = new HashMap<>();
  private final Map<Long, Instant> ending = new HashMap<>();
  private Instant now = Instant.parse("2026-03-01T08:00:00Z");
  private long lastPid = 100;
  private long self = 1;
  private int points;
  private int reads;
  private int deadly = -1;
  private int failing = -1;
  private int failingRead = -1;
  private boolean fillsUp;

  /** Whether processes of others are hidden here. */
  boolean hidesOthers;

  private final Map<Path, MemoryHold> locks = new HashMap<>();
  final MemoryDatabase database = new MemoryDatabase();
  private Optional<MemoryFront> front = Optional.empty();
  private Runnable reaction = () -> {};

  public Host host() {
    return new Host("memory", true, this, this, Sight.NEAR, Map.of());
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
    trouble();
    deadly = point;
  }

  /** The next process goes through without a mishap. */
  public void trouble() {
    points = 0;
    reads = 0;
    deadly = -1;
    failing = -1;
    failingRead = -1;
    fillsUp = false;
    self++;
  }

  /** What the next process does at its n-th point of change fails, that once. */
  public void failAt(int point) {
    trouble();
    failing = point;
  }

  /** The n-th reading of the next process fails, that once. */
  public void failReadingAt(int reading) {
    trouble();
    failingRead = reading;
  }

  /** The disk is full from the n-th point of change of the next process on. */
  public void fullFrom(int point) {
    trouble();
    failing = point;
    fillsUp = true;
  }

  /** The files as whoever stands outside sees them. */
  public HostFiles asItStands() {
    trouble();
    return this;
  }

  /** Whether the mishap that was asked for came to pass. */
  public boolean cameToPass() {
    return failingRead > 0 ? reads >= failingRead : points >= failing;
  }

  @Override
  void point() {
    points++;
    if (deadly > 0 && points >= deadly) {
      throw new Died();
    }
    if (points == failing && !fillsUp) {
      throw new HostException("Cannot do that: input/output error");
    }
  }

  @Override
  void needsSpace() {
    if (fillsUp && points >= failing) {
      throw new HostException("Cannot write: no space left on the device");
    }
  }

  @Override
  void reads() {
    if (++reads == failingRead) {
      throw new HostException("Cannot read: input/output error");
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
    return new Identity(BOOT, "", pid, programs.get(pid).ticks());
  }

  @Override
  public Fact<List<jollycrate.host.Program>> programs(Predicate<List<String>> such) {
    if (hidesOthers) {
      return Fact.unknown("processes of others are hidden");
    }
    return Fact.known(
        programs.keySet().stream()
            .filter(pid -> such.test(List.of(SERVER, programs.get(pid).token())))
            .map(pid -> new jollycrate.host.Program(identity(pid), List.of(SERVER)))
            .toList());
  }

  @Override
  public Fact<Path> workingFolder(Identity process) {
    return Fact.known(Path.of("/"));
  }

  @Override
  public Identity self() {
    return new Identity(BOOT, "", self, 0);
  }

  @Override
  public String boot() {
    return BOOT;
  }

  @Override
  public Life life(Identity process) {
    if (hidesOthers && process.pid() != self) {
      return Life.UNKNOWN;
    }
    Program program = programs.get(process.pid());
    boolean runs = process.pid() == self || program != null && program.ticks() == process.ticks();
    return runs ? Life.RUNS : Life.GONE;
  }

  /** Whoever died holds nothing any more. */
  @Override
  public Optional<Hold> hold(Path file, String content, Access access) {
    needsSpace();
    point();
    MemoryHold held = locks.get(file);
    if (held != null && held.holder == self && held.stands()) {
      return Optional.empty();
    }
    quietly(file, content);
    MemoryHold hold = new MemoryHold(file, self);
    locks.put(file, hold);
    point();
    return Optional.of(hold);
  }

  /** A lock of one process. */
  private final class MemoryHold implements Hold {
    private final Path file;
    private final long holder;

    MemoryHold(Path file, long holder) {
      this.file = file;
      this.holder = holder;
    }

    @Override
    public boolean stands() {
      return locks.get(file) == this && exists(file);
    }

    @Override
    public boolean renew(String content) {
      return stands();
    }

    @Override
    public void close() {
      if (!stands()) {
        return;
      }
      locks.remove(file);
      point();
      quietlyDelete(file);
      point();
    }
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
    Ran ran =
        MemoryDatabase.isAsked(command)
            ? database.run(input, this::point)
            : front.map(there -> there.run(command)).orElseThrow();
    point();
    return ran;
  }

  @Override
  public Fact<Optional<Path>> output(Identity process) {
    return Fact.known(Optional.empty());
  }

  @Override
  public Fact<List<Bean>> beans(Identity process, List<Question> questions) {
    return Fact.unknown("it is no Java process");
  }

  @Override
  public Fact<List<Listening>> listeners() {
    return listening(8080).map(found -> found.stream().toList());
  }

  @Override
  public Fact<Optional<Listening>> listening(int port, String address) {
    if (port == 80) {
      return Fact.known(
          front.map(there -> new Listening(port, InetAddress.getLoopbackAddress(), 900, "front")));
    }
    return Fact.known(
        programs.keySet().stream()
            .findFirst()
            .map(pid -> new Listening(port, InetAddress.getLoopbackAddress(), pid, "server")));
  }

  @Override
  public Fact<Set<Integer>> ports(Collection<Identity> processes) {
    return Fact.known(processes.stream().anyMatch(this::mayRun) ? Set.of(8080) : Set.of());
  }

  @Override
  public Fact<Set<Identity>> acceptors(int port) {
    if (hidesOthers) {
      return Fact.unknown("processes of others are hidden");
    }
    return Fact.known(front.map(MemoryFront::acceptors).orElse(Set.of()));
  }

  @Override
  public long memory(Identity process) {
    return 0;
  }

  @Override
  public Fact<Long> connections(int port) {
    return Fact.known(0L);
  }
}
