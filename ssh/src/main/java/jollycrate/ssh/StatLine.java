package jollycrate.ssh;

import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import jollycrate.host.Access;
import jollycrate.host.Facts;
import jollycrate.host.HostException;
import jollycrate.host.Quote;

/** What {@code stat} says of files, a line for each that stands. */
final class StatLine {
  /** Fields of a line that {@code stat} prints; the path may have spaces. */
  private static final String STAT = "%f %s %U %G %Y %n";

  private static final int FIELDS = 6;
  private static final int TYPE = 0170000;
  private static final int FILE = 0100000;
  private static final int FOLDER = 0040000;
  private static final int LINK = 0120000;
  private static final int HEX = 16;

  private StatLine() {}

  /** Asks for facts of paths. */
  static String script(List<Path> paths) {
    String all = Quote.words(paths);
    return "stat -c '"
        + STAT
        + "' -- "
        + all
        + "\necho\nfor p in "
        + all
        + "; do [ -h \"$p\" ] && { printf '%s\\n' \"$p\"; readlink \"$p\"; }; done; :";
  }

  /** What was told of them. */
  static List<Facts> facts(List<Path> paths, Shell.Reply reply) {
    List<String> lines = reply.text().lines().toList();
    int links = lines.indexOf("");
    Map<String, String> targets = new HashMap<>();
    for (int i = links + 1; i + 1 < lines.size(); i += 2) {
      targets.put(lines.get(i), lines.get(i + 1));
    }
    Map<String, Facts> found = new HashMap<>();
    lines.stream()
        .limit(links)
        .map(line -> facts(line, targets))
        .forEach(facts -> found.put(facts.path().toString(), facts));
    refuseUnseen(reply.errors());
    return paths.stream()
        .map(path -> found.getOrDefault(path.toString(), Facts.absent(path)))
        .toList();
  }

  /** What may not be looked at is not known to be absent. */
  private static void refuseUnseen(String errors) {
    errors
        .lines()
        .filter(line -> !line.endsWith("No such file or directory"))
        .filter(line -> !line.endsWith("Not a directory"))
        .findFirst()
        .ifPresent(
            line -> {
              throw new HostException("Cannot look there: " + line);
            });
  }

  private static Facts facts(String line, Map<String, String> targets) {
    String[] fields = line.split(" ", FIELDS);
    int mode = Integer.parseInt(fields[0], HEX);
    Path path = Path.of(fields[FIELDS - 1]);
    Facts.Type type =
        switch (mode & TYPE) {
          case FILE -> Facts.Type.FILE;
          case FOLDER -> Facts.Type.FOLDER;
          case LINK -> Facts.Type.LINK;
          default -> Facts.Type.OTHER;
        };
    return new Facts(
        path,
        type,
        type == Facts.Type.FILE ? Long.parseLong(fields[1]) : 0,
        new Access(letters(mode), fields[2], fields[3]),
        Instant.ofEpochSecond(Long.parseLong(fields[4])),
        targets.getOrDefault(path.toString(), ""));
  }

  private static String letters(int mode) {
    Set<PosixFilePermission> rights = EnumSet.noneOf(PosixFilePermission.class);
    for (PosixFilePermission right : PosixFilePermission.values()) {
      if ((mode & bit(right)) != 0) {
        rights.add(right);
      }
    }
    return PosixFilePermissions.toString(rights);
  }

  /** The bit of a right in a mode. */
  static int bit(PosixFilePermission right) {
    return 0400 >> right.ordinal();
  }
}
