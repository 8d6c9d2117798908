package jollycrate.host;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
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

/** What Linux tells about processes and sockets in {@code /proc} (proc(5)). */
final class ProcFs {
  private static final Path PROC = Path.of("/proc");
  private static final Pattern SOCKET = Pattern.compile("socket:\\[(\\d+)]");
  private static final int PARENT = 1;
  private static final int SESSION = 3;
  private static final int START_TIME = 19;

  private ProcFs() {}

  /** Something in {@code /proc} that is there but may not be read. */
  static final class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    Unreadable(Path file, IOException cause) {
      super("'" + file + "' may not be read", cause);
    }
  }

  static String boot() {
    return text(PROC.resolve("sys/kernel/random/boot_id")).orElse("").strip();
  }

  /** The name space that counts the ids of this process and its kind; empty when not told. */
  static String space() {
    try {
      return Files.readSymbolicLink(PROC.resolve("self/ns/pid")).toString().replaceAll("\\D", "");
    } catch (IOException e) {
      return "";
    }
  }

  /**
   * Whether processes of other users are hidden from this one (the mount option {@code hidepid}):
   * then one that is not seen may run all the same.
   */
  static boolean hidesOthers() {
    try {
      return text(PROC.resolve("1/stat")).isEmpty();
    } catch (Unreadable e) {
      return true;
    }
  }

  /** Start time of a process in ticks since boot; empty when it has ended or is a zombie. */
  static OptionalLong ticks(long pid) {
    return stat(pid)
        .map(fields -> OptionalLong.of(Long.parseLong(fields[START_TIME])))
        .orElse(OptionalLong.empty());
  }

  /** The parent of a process; 0 when it has ended. */
  static long parent(long pid) {
    return stat(pid).map(fields -> Long.parseLong(fields[PARENT])).orElse(0L);
  }

  /** Fields of a living process from its state on. */
  private static Optional<String[]> stat(long pid) {
    String stat = text(PROC.resolve(pid + "/stat")).orElse("");
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
        .orElse("")
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
    String line = text(PROC.resolve(pid + "/cmdline")).orElse("");
    return line.isEmpty() ? List.of() : List.of(line.split("\0"));
  }

  static List<Long> processes() {
    List<Long> pids = new ArrayList<>();
    for (Path entry : children(PROC)) {
      String name = entry.getFileName().toString();
      if (name.chars().allMatch(Character::isDigit)) {
        pids.add(Long.parseLong(name));
      }
    }
    return pids;
  }

  /** The socket that listens on a port of any address. */
  static Optional<TcpSocket> listener(int port) {
    return tcp().filter(socket -> socket.listens() && socket.port() == port).findFirst();
  }

  /** Ports that are listened on, by the inodes of their sockets. */
  static Map<String, Integer> listeners() {
    return tcp()
        .filter(TcpSocket::listens)
        .collect(Collectors.toMap(TcpSocket::inode, TcpSocket::port, (one, other) -> one));
  }

  /** Number of connections that somebody has to a port here. */
  static long connections(int port) {
    return tcp().filter(socket -> socket.connects() && socket.port() == port).count();
  }

  /** A kernel without IPv6 has one table only. */
  private static Stream<TcpSocket> tcp() {
    String ipv4 =
        text(PROC.resolve("net/tcp"))
            .orElseThrow(
                () -> new Unreadable(PROC.resolve("net/tcp"), new NoSuchFileException("net/tcp")));
    return Stream.of(ipv4, text(PROC.resolve("net/tcp6")).orElse("")).flatMap(TcpSocket::in);
  }

  /** Inodes of the sockets that a process has open; none when it has ended. */
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

  /** The file behind a process's standard output; empty when that is none, or it has ended. */
  static Optional<Path> output(long pid) {
    Path link = PROC.resolve(pid + "/fd/1");
    try {
      return Optional.of(Files.readSymbolicLink(link)).filter(Files::isRegularFile);
    } catch (NoSuchFileException | NotDirectoryException ended) {
      return Optional.empty();
    } catch (IOException e) {
      throw new Unreadable(link, e);
    }
  }

  /** A descriptor may have been closed since it was listed. */
  private static String target(Path link) {
    try {
      return Files.readSymbolicLink(link).toString();
    } catch (NoSuchFileException e) {
      return "";
    } catch (IOException e) {
      if (ended(link)) {
        return "";
      }
      throw new Unreadable(link, e);
    }
  }

  private static List<Path> children(Path folder) {
    try (Stream<Path> children = Files.list(folder)) {
      return children.toList();
    } catch (NoSuchFileException | NotDirectoryException e) {
      return List.of();
    } catch (UncheckedIOException e) {
      return orNone(folder, e.getCause());
    } catch (IOException e) {
      return orNone(folder, e);
    }
  }

  private static List<Path> orNone(Path folder, IOException e) {
    if (ended(folder)) {
      return List.of();
    }
    throw new Unreadable(folder, e);
  }

  /** What stands in a file; empty when there is none, as when its process has ended. */
  private static Optional<String> text(Path file) {
    try {
      return Optional.of(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
    } catch (NoSuchFileException e) {
      return Optional.empty();
    } catch (IOException e) {
      if (ended(file)) {
        return Optional.empty();
      }
      throw new Unreadable(file, e);
    }
  }

  /** A process may end between the opening of one of its files and the reading. */
  private static boolean ended(Path file) {
    Path process = file.subpath(0, Math.min(2, file.getNameCount()));
    return Files.notExists(Path.of("/").resolve(process));
  }
}
