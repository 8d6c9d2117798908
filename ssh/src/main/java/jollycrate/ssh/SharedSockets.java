package jollycrate.ssh;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.file.Trees;

/**
 * Where connections that later commands go on with have their sockets (ControlPath in
 * ssh_config(5)): a folder of this user alone.
 */
final class SharedSockets {
  /** Addresses of sockets are bounded (unix(7)), and {@code ssh} makes one beside at first. */
  private static final int LONGEST = 80;

  private static final String LOG = ".log";
  private static final int NAME_LETTERS = 20;
  private static final String OWNER_ONLY = "rwx------";

  private SharedSockets() {}

  /** Of a destination; the same as long as the configuration says the same of it. */
  static Optional<Path> of(Destination destination) {
    Optional<Path> folder = folder();
    folder.ifPresent(SharedSockets::sweep);
    return folder.map(parent -> parent.resolve(name(destination))).filter(SharedSockets::fits);
  }

  /** The log of the connection that has a socket. */
  static Path log(Path socket) {
    return socket.resolveSibling(socket.getFileName() + LOG);
  }

  /** A connection that ended took its socket away, and left its log. */
  private static void sweep(Path folder) {
    try (DirectoryStream<Path> logs = Files.newDirectoryStream(folder, "*" + LOG)) {
      for (Path log : logs) {
        String name = log.getFileName().toString();
        String socket = name.substring(0, name.length() - LOG.length());
        if (Files.notExists(log.resolveSibling(socket), LinkOption.NOFOLLOW_LINKS)) {
          Files.deleteIfExists(log);
        }
      }
    } catch (IOException theyStay) {
      return;
    }
  }

  /** One that nobody else knows. */
  static Optional<Path> alone() {
    return Optional.of(Trees.temporary().resolve("s")).filter(SharedSockets::fits);
  }

  private static boolean fits(Path socket) {
    return socket.toString().length() <= LONGEST;
  }

  private static String name(Destination destination) {
    byte[] report = destination.report().getBytes(StandardCharsets.UTF_8);
    return Digests.of(report).substring(0, NAME_LETTERS);
  }

  /** In the user's own run-time folder, or else in his cache (XDG Base Directory Specification). */
  static Optional<Path> folder() {
    Path home = Path.of(System.getProperty("user.home"));
    Path cache = variable("XDG_CACHE_HOME").orElse(home.resolve(".cache"));
    return Stream.concat(variable("XDG_RUNTIME_DIR").stream(), Stream.of(cache))
        .map(parent -> parent.resolve("jolly-crate"))
        .filter(SharedSockets::isOurs)
        .findFirst();
  }

  private static Optional<Path> variable(String name) {
    return Optional.ofNullable(System.getenv(name)).filter(v -> v.startsWith("/")).map(Path::of);
  }

  /** Makes it if it is not there; what others could have made or can change is none. */
  private static boolean isOurs(Path folder) {
    try {
      if (Files.notExists(folder, LinkOption.NOFOLLOW_LINKS)) {
        Files.createDirectories(
            folder,
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(OWNER_ONLY)));
      }
      return Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)
          && Files.getOwner(folder, LinkOption.NOFOLLOW_LINKS)
              .getName()
              .equals(System.getProperty("user.name"))
          && PosixFilePermissions.toString(
                  Files.getPosixFilePermissions(folder, LinkOption.NOFOLLOW_LINKS))
              .equals(OWNER_ONLY);
    } catch (IOException | UnsupportedOperationException e) {
      return false;
    }
  }
}
