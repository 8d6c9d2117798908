package jollycrate.host;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** What Linux tells about processes and sockets in {@code /proc} (proc(5)). */
final class ProcFs {
  private static final Path PROC = Path.of("/proc");
  private static final String LISTEN = "0A";
  private static final Pattern SOCKET = Pattern.compile("socket:\\[(\\d+)]");
  private static final int PARENT = 1;
  private static final int SESSION = 3;
  private static final int START_TIME = 19;
  private static final String ESTABLISHED = "01";

  private ProcFs() {}

  static String boot() {
    return text(PROC.resolve("sys/kernel/random/boot_id")).strip();
  }

  /** Start time of a process in ticks since boot; empty when it has ended or is a zombie. */
  static OptionalLong ticks(long pid) {
    return stat(pid)
        .map(fields -> OptionalLong.of(Long.parseLong(fields[START_TIME])))
        .orElse(OptionalLong.empty());
  }

  /** Fields of a living process from its state on. */
  private static Optional<String[]> stat(long pid) {
    String stat = text(PROC.resolve(pid + "/stat"));
    int name = stat.lastIndexOf(')');
    if (name < 0) {
      return Optional.empty();
    }
    String[] fields = stat.substring(name + 2).split(" ");
    boolean ended = fields[0].equals("Z") || fields[0].equals("X");
    return ended ? Optional.empty() : Optional.of(fields);
  }

  /** Resident memory of a process in bytes (VmRSS). */
  static long memory(long pid) {
    return text(PROC.resolve(pid + "/status"))
        .lines()
        .filter(line -> line.startsWith("VmRSS:"))
        .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) * 1024)
        .sum();
  }

  /** Processes that descend from one of some, or whose session belongs to one that does. */
  static Set<Long> kin(Collection<Long> ancestors) {
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

  static List<String> arguments(long pid) {
    String line = text(PROC.resolve(pid + "/cmdline"));
    return line.isEmpty() ? List.of() : List.of(line.split("\0"));
  }

  static Optional<Long> firstProcess(Predicate<Long> wanted) {
    return processes().stream().filter(wanted).findFirst();
  }

  private static List<Long> processes() {
    List<Long> pids = new ArrayList<>();
    for (Path entry : children(PROC)) {
      String name = entry.getFileName().toString();
      if (name.chars().allMatch(Character::isDigit)) {
        pids.add(Long.parseLong(name));
      }
    }
    return pids;
  }

  /** Inode of the socket that listens on a port of any address. */
  static Optional<String> listener(int port) {
    return listeners().entrySet().stream()
        .filter(socket -> socket.getValue() == port)
        .map(Map.Entry::getKey)
        .findFirst();
  }

  /** Ports that are listened on, by the inodes of their sockets. */
  static Map<String, Integer> listeners() {
    Map<String, Integer> ports = new LinkedHashMap<>();
    sockets()
        .filter(fields -> fields[3].equals(LISTEN))
        .forEach(fields -> ports.put(fields[9], localPort(fields)));
    return ports;
  }

  /** Number of connections that somebody has to a port here. */
  static long connections(int port) {
    return sockets()
        .filter(fields -> fields[3].equals(ESTABLISHED) && localPort(fields) == port)
        .count();
  }

  private static int localPort(String[] fields) {
    return Integer.parseInt(fields[1].substring(fields[1].lastIndexOf(':') + 1), 16);
  }

  private static Stream<String[]> sockets() {
    return Stream.of("net/tcp", "net/tcp6")
        .flatMap(table -> text(PROC.resolve(table)).lines().skip(1))
        .map(line -> line.strip().split("\\s+"))
        .filter(fields -> fields.length > 9);
  }

  static Optional<Long> holderOf(String inode) {
    return processes().stream().filter(pid -> holds(pid, inode)).findFirst();
  }

  static List<Long> holdersOf(String inode) {
    return processes().stream().filter(pid -> holds(pid, inode)).toList();
  }

  private static boolean holds(long pid, String inode) {
    return sockets(pid).contains(inode);
  }

  /** Inodes of the sockets that a process has open. */
  static Set<String> sockets(long pid) {
    Set<String> inodes = new HashSet<>();
    for (Path fd : children(PROC.resolve(pid + "/fd"))) {
      Matcher socket = SOCKET.matcher(target(fd));
      if (socket.matches()) {
        inodes.add(socket.group(1));
      }
    }
    return inodes;
  }

  private static String target(Path link) {
    try {
      return Files.readSymbolicLink(link).toString();
    } catch (IOException e) {
      return "";
    }
  }

  private static List<Path> children(Path folder) {
    try (Stream<Path> children = Files.list(folder)) {
      return children.toList();
    } catch (IOException e) {
      return List.of();
    }
  }

  private static String text(Path file) {
    try {
      return new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
    } catch (IOException e) {
      return "";
    }
  }
}
