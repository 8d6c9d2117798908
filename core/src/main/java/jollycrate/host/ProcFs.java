package jollycrate.host;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** What Linux tells about processes and sockets in {@code /proc} (proc(5)). */
final class ProcFs {
  private static final Path PROC = Path.of("/proc");
  private static final String LISTEN = "0A";
  private static final int START_TIME = 19;

  private ProcFs() {}

  static String boot() {
    return text(PROC.resolve("sys/kernel/random/boot_id")).strip();
  }

  /** Start time of a process in ticks since boot; empty when it has ended or is a zombie. */
  static OptionalLong ticks(long pid) {
    String stat = text(PROC.resolve(pid + "/stat"));
    int name = stat.lastIndexOf(')');
    if (name < 0) {
      return OptionalLong.empty();
    }
    String[] fields = stat.substring(name + 2).split(" ");
    boolean ended = fields[0].equals("Z") || fields[0].equals("X");
    return ended ? OptionalLong.empty() : OptionalLong.of(Long.parseLong(fields[START_TIME]));
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
    String suffix = String.format(":%04X", port);
    return Stream.of("net/tcp", "net/tcp6")
        .flatMap(table -> text(PROC.resolve(table)).lines().skip(1))
        .map(line -> line.strip().split("\\s+"))
        .filter(f -> f.length > 9 && f[1].endsWith(suffix) && f[3].equals(LISTEN))
        .map(fields -> fields[9])
        .findFirst();
  }

  static Optional<Long> holderOf(String inode) {
    String socket = "socket:[" + inode + "]";
    return firstProcess(
        pid -> children(PROC.resolve(pid + "/fd")).stream().anyMatch(fd -> linksTo(fd, socket)));
  }

  private static boolean linksTo(Path link, String target) {
    try {
      return Files.readSymbolicLink(link).toString().equals(target);
    } catch (IOException e) {
      return false;
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
