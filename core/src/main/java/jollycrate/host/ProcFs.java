package jollycrate.host;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What {@code /proc} says of processes and sockets (proc(5)). */
final class ProcFs {
  private static final Pattern SOCKET = Pattern.compile("socket:\\[(\\d+)]");
  private static final int PARENT = 1;
  private static final int SESSION = 3;
  private static final int START_TIME = 19;

  private final Proc proc;

  ProcFs(Proc proc) {
    this.proc = proc;
  }

  String boot() {
    return proc.text("sys/kernel/random/boot_id").orElse("").strip();
  }

  /** The name space that counts the ids of this process and its kind; empty when not told. */
  String space() {
    try {
      return proc.target("self/ns/pid").replaceAll("\\D", "");
    } catch (Proc.Unreadable e) {
      return "";
    }
  }

  /**
   * Whether processes of other users are hidden from this one (the mount option {@code hidepid}):
   * then one that is not seen may run all the same.
   */
  boolean hidesOthers() {
    try {
      return proc.text("1/stat").isEmpty();
    } catch (Proc.Unreadable e) {
      return true;
    }
  }

  /** Start time of a process in ticks since boot; empty when it has ended or is a zombie. */
  OptionalLong ticks(long pid) {
    return stat(pid)
        .map(fields -> OptionalLong.of(Long.parseLong(fields[START_TIME])))
        .orElse(OptionalLong.empty());
  }

  /** The parent of a process; 0 when it has ended. */
  long parent(long pid) {
    return stat(pid).map(fields -> Long.parseLong(fields[PARENT])).orElse(0L);
  }

  /** Fields of a living process from its state on. */
  private Optional<String[]> stat(long pid) {
    String stat = proc.text(pid + "/stat").orElse("");
    int name = stat.lastIndexOf(')');
    if (name < 0) {
      return Optional.empty();
    }
    String[] fields = stat.substring(name + 2).split(" ");
    boolean ended = fields[0].equals("Z") || fields[0].equals("X");
    return ended ? Optional.empty() : Optional.of(fields);
  }

  /** Resident memory of a process in bytes (VmRSS). */
  long memory(long pid) {
    return proc.text(pid + "/status")
        .orElse("")
        .lines()
        .filter(line -> line.startsWith("VmRSS:"))
        .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) * 1024)
        .sum();
  }

  /** Processes that descend from one of some, or whose session belongs to one that does. */
  Set<Long> kin(Collection<Long> ancestors) {
    Map<Long, List<Long>> above = new HashMap<>();
    for (long pid : processes()) {
      stat(pid)
          .ifPresent(
              fields ->
                  above.put(
                      pid,
                      List.of(Long.parseLong(fields[PARENT]), Long.parseLong(fields[SESSION]))));
    }
    Set<Long> kin = new HashSet<>(ancestors);
    int size;
    do {
      size = kin.size();
      above.forEach(
          (pid, up) -> {
            if (up.stream().anyMatch(kin::contains)) {
              kin.add(pid);
            }
          });
    } while (kin.size() > size);
    return kin;
  }

  List<String> arguments(long pid) {
    String line = proc.text(pid + "/cmdline").orElse("");
    return line.isEmpty() ? List.of() : List.of(line.split("\0"));
  }

  List<Long> processes() {
    List<Long> pids = new ArrayList<>();
    for (String name : proc.children("")) {
      if (name.chars().allMatch(Character::isDigit)) {
        pids.add(Long.parseLong(name));
      }
    }
    return pids;
  }

  /** Sockets that listen. */
  Stream<TcpSocket> listening() {
    return tcp().filter(TcpSocket::listens);
  }

  /** The socket that listens on a port of any address. */
  Optional<TcpSocket> listener(int port) {
    return listener(port, "");
  }

  /** The same where an address is bound. */
  Optional<TcpSocket> listener(int port, String address) {
    return listening()
        .filter(socket -> socket.port() == port && Listening.meets(socket.address(), address))
        .findFirst();
  }

  /** Ports that are listened on, by the inodes of their sockets. */
  Map<String, Integer> listeners() {
    return listening()
        .collect(Collectors.toMap(TcpSocket::inode, TcpSocket::port, (one, other) -> one));
  }

  /** Number of connections that somebody has to a port here. */
  long connections(int port) {
    return tcp().filter(socket -> socket.connects() && socket.port() == port).count();
  }

  /** A kernel without IPv6 has one table only. */
  private Stream<TcpSocket> tcp() {
    String ipv4 = proc.text("net/tcp").orElseThrow(() -> new Proc.Unreadable("/proc/net/tcp"));
    return Stream.of(ipv4, proc.text("net/tcp6").orElse("")).flatMap(TcpSocket::in);
  }

  /** Inodes of the sockets that a process has open; none when it has ended. */
  Set<String> sockets(long pid) {
    Set<String> inodes = new HashSet<>();
    for (String fd : proc.children(pid + "/fd")) {
      Matcher socket = SOCKET.matcher(proc.target(pid + "/fd/" + fd));
      if (socket.matches()) {
        inodes.add(socket.group(1));
      }
    }
    return inodes;
  }

  /** What is behind a process's standard output; empty when it has ended. */
  String output(long pid) {
    return proc.target(pid + "/fd/1");
  }
}
