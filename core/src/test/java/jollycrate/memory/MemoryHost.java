package jollycrate.memory;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import jollycrate.artifact.Digests;
import jollycrate.host.Access;
import jollycrate.host.Account;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Listening;
import jollycrate.host.Ran;
import jollycrate.host.Time;

/** A machine in memory, on which whoever changes something can be killed at any moment. */
public final class MemoryHost implements HostFiles, HostProcesses, Time {
  private static final Access OWN = new Access("rwxr-x---", "anna", "anna");
  private static final String BOOT = "boot";

  /** Something at a path; null bytes for a folder. */
  private record Node(byte[] bytes, Access access, long stamp) {}

  /** A started program. */
  private record Program(String token, long ticks) {}

  private final TreeMap<Path, Node> nodes = new TreeMap<>();
  private final Map<Long, Program> programs = new HashMap<>();
  private final Map<Long, Instant> ending = new HashMap<>();
  private Instant now = Instant.parse("2026-03-01T08:00:00Z");
  private long lastStamp;
  private long lastPid = 100;
  private long self = 1;
  private int points;
  private int deadly = -1;
  private Optional<MemoryFront> front = Optional.empty();
  private Runnable reaction = () -> {};

  public MemoryHost() {
    nodes.put(Path.of("/"), new Node(null, OWN, 0));
  }

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

  private void point() {
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

  /** Changes that the server makes: never a reason to be killed. */
  public void quietly(Path path, String text) {
    nodes.put(path, new Node(text.getBytes(), OWN.with("rw-r-----"), ++lastStamp));
  }

  public void quietFolder(Path path) {
    nodes.putIfAbsent(path, new Node(null, OWN, ++lastStamp));
  }

  public void quietlyDelete(Path tree) {
    nodes.keySet().removeIf(path -> path.startsWith(tree));
  }

  public void quietlyAppend(Path path, String text) {
    String old = nodes.containsKey(path) ? text(path) : "";
    quietly(path, old + text);
  }

  public String text(Path path) {
    return new String(nodes.get(path).bytes());
  }

  public boolean exists(Path path) {
    return nodes.containsKey(path);
  }

  public long stamp(Path path) {
    return nodes.get(path).stamp();
  }

  public List<Path> children(Path folder) {
    return nodes.keySet().stream().filter(path -> folder.equals(path.getParent())).toList();
  }

  /** Everything below a folder but some, as comparable text. */
  public Map<String, String> snapshot(Path folder, List<Path> but) {
    Map<String, String> snapshot = new TreeMap<>();
    nodes.forEach(
        (path, node) -> {
          if (path.startsWith(folder) && but.stream().noneMatch(path::startsWith)) {
            String content = node.bytes() == null ? "folder" : Digests.of(node.bytes());
            snapshot.put(path.toString(), node.access() + " " + content);
          }
        });
    return snapshot;
  }

  public List<Long> running() {
    return List.copyOf(programs.keySet());
  }

  @Override
  public List<Facts> facts(List<Path> paths) {
    return paths.stream().map(this::factsOf).toList();
  }

  private Facts factsOf(Path path) {
    Node node = nodes.get(path);
    if (node == null) {
      return Facts.absent(path);
    }
    Facts.Type type = node.bytes() == null ? Facts.Type.FOLDER : Facts.Type.FILE;
    long size = node.bytes() == null ? 0 : node.bytes().length;
    return new Facts(path, type, size, node.access(), Instant.ofEpochMilli(node.stamp()), "");
  }

  @Override
  public List<Path> list(Path folder) {
    return children(folder);
  }

  @Override
  public String digest(Path file) {
    return Digests.of(nodes.get(file).bytes());
  }

  @Override
  public byte[] read(Path file, long offset, int most) {
    Node node = nodes.get(file);
    if (node == null || node.bytes() == null) {
      return new byte[0];
    }
    int from = (int) Math.min(offset, node.bytes().length);
    return Arrays.copyOfRange(
        node.bytes(), from, (int) Math.min(node.bytes().length, (long) from + most));
  }

  @Override
  public void put(Path file, Content content, Access access) {
    needFolder(file);
    byte[] bytes;
    try (InputStream in = content.open()) {
      bytes = in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    point();
    Path beside = HostFiles.beside(file);
    nodes.put(beside, new Node(Arrays.copyOf(bytes, bytes.length / 2), access, ++lastStamp));
    point();
    nodes.remove(beside);
    nodes.put(file, new Node(bytes, access, ++lastStamp));
    point();
  }

  private void needFolder(Path path) {
    if (!nodes.containsKey(path.getParent()) || nodes.get(path.getParent()).bytes() != null) {
      throw new HostException("Cannot write '" + path + "': no such folder");
    }
  }

  @Override
  public boolean claim(Path file, byte[] content, Access access) {
    point();
    boolean free = nodes.putIfAbsent(file, new Node(content, access, ++lastStamp)) == null;
    point();
    return free;
  }

  @Override
  public void append(Path file, byte[] bytes) {
    byte[] old = nodes.get(file).bytes();
    Access access = nodes.get(file).access();
    point();
    nodes.put(file, new Node(joined(old, bytes, bytes.length / 2), access, ++lastStamp));
    point();
    nodes.put(file, new Node(joined(old, bytes, bytes.length), access, ++lastStamp));
    point();
  }

  private static byte[] joined(byte[] old, byte[] more, int count) {
    byte[] all = Arrays.copyOf(old, old.length + count);
    System.arraycopy(more, 0, all, old.length, count);
    return all;
  }

  @Override
  public void makeFolder(Path folder, Access access) {
    needFolder(folder);
    point();
    nodes.put(folder, new Node(null, access, ++lastStamp));
    point();
  }

  @Override
  public void move(Path from, Path to) {
    point();
    nodes.put(to, nodes.remove(from));
    point();
  }

  @Override
  public void delete(Path path) {
    if (!children(path).isEmpty()) {
      throw new HostException("Cannot delete '" + path + "': it is not empty");
    }
    point();
    nodes.remove(path);
    point();
  }

  @Override
  public long free(Path folder) {
    return Long.MAX_VALUE;
  }

  @Override
  public boolean writable(Path folder) {
    return true;
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

  /** A program goes on for a moment after it was asked to end. */
  @Override
  public Optional<Account> accountIn(Path folder) {
    return Optional.empty();
  }

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
