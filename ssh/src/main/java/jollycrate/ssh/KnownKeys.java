package jollycrate.ssh;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.HostException;
import jollycrate.host.Ran;

/**
 * Keys of machines that are trusted, in files as {@code sshd(8)} describes them. {@code ssh-keygen}
 * finds them there, whether their names are hashed or not; a file is only ever added to.
 */
final class KnownKeys {
  private static final Duration FOUND_WITHIN = Duration.ofSeconds(10);
  private static final Pattern FOUND = Pattern.compile("# Host .* found: line (\\d+) ?(.*)");
  private static final Pattern KEY =
      Pattern.compile("((?:ssh|ecdsa|sk)-[a-z0-9@.-]+) ([A-Za-z0-9+/]+=*)");

  private final List<Path> files;

  KnownKeys(List<Path> files) {
    this.files = files;
  }

  /**
   * A key that is in a file.
   *
   * @param line from 1
   * @param revoked whether the line forbids it
   */
  record Kept(Path file, int line, PublicKey key, boolean revoked) {
    String fingerprint() {
      return key.fingerprint();
    }
  }

  /** All keys of a name. */
  List<Kept> all(String name) {
    List<Kept> all = new ArrayList<>();
    for (Path file : files) {
      if (Files.isRegularFile(file)) {
        all.addAll(in(file, found(name, file)));
      }
    }
    return all;
  }

  private static String found(String name, Path file) {
    try {
      Ran ran = OpenSsh.run(List.of("ssh-keygen", "-F", name, "-f", file.toString()), FOUND_WITHIN);
      return ran.output();
    } catch (IOException e) {
      throw HostException.cannot("look for keys in", file, e);
    }
  }

  private static List<Kept> in(Path file, String printed) {
    List<Kept> kept = new ArrayList<>();
    int line = 0;
    boolean revoked = false;
    for (String text : printed.lines().toList()) {
      Matcher found = FOUND.matcher(text);
      if (found.matches()) {
        line = Integer.parseInt(found.group(1));
        revoked = found.group(2).contains("REVOKED");
      } else {
        for (PublicKey key : keysIn(text)) {
          kept.add(new Kept(file, line, key, revoked));
        }
      }
    }
    return kept;
  }

  /** The key in a line of such a file. */
  static List<PublicKey> keysIn(String line) {
    return KEY.matcher(line)
        .results()
        .map(found -> new PublicKey(found.group(1), found.group(2)))
        .toList();
  }

  /** Adds a key to a file, which is made if it is not there. */
  static void add(Path file, String name, PublicKey key) {
    try {
      String text = Files.exists(file) ? Files.readString(file) : "";
      String gap = text.isEmpty() || text.endsWith("\n") ? "" : "\n";
      Path folder = file.getParent();
      if (Files.notExists(folder)) {
        Files.createDirectories(
            folder,
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
      }
      if (Files.notExists(file)) {
        Files.createFile(
            file,
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
      }
      Files.writeString(
          file,
          gap + name + " " + key.type() + " " + key.base64() + "\n",
          StandardCharsets.UTF_8,
          StandardOpenOption.APPEND,
          StandardOpenOption.SYNC);
    } catch (IOException e) {
      throw HostException.cannot("add a key to", file, e);
    }
  }
}
