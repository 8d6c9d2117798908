package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** A folder on a host that nobody else uses or reads; it goes when it is closed. */
public final class ScratchFolder implements AutoCloseable {
  private static final Duration LIMIT = Duration.ofSeconds(20);

  private final Host host;
  private final Path folder;
  private final Access access;

  private ScratchFolder(Host host, Path folder) {
    this.host = host;
    this.folder = folder;
    this.access = host.files().facts(folder).access();
  }

  /**
   * Makes one where the host has such folders.
   *
   * @param account who works in it; empty: this user
   * @throws HostException when there is no room for one
   */
  public static ScratchFolder make(Host host, Optional<Account> account) {
    List<String> command = Account.running(account, List.of("mktemp", "-d"));
    Ran ran = host.processes().run(command, Path.of("/"), host.environment(), "", LIMIT);
    String made = ran.output().strip();
    if (!made.startsWith("/")) {
      throw new HostException(
          "Cannot make a folder for the time being on "
              + host.name()
              + ": "
              + ran.errors().strip());
    }
    return new ScratchFolder(host, Path.of(made));
  }

  public Path path() {
    return folder;
  }

  /** Puts a file; its name may hold folders. */
  public Path put(String name, Content content, String mode) {
    Path file = folder.resolve(name);
    makeFolder(file.getParent());
    host.files().put(file, content, access.with(mode));
    return file;
  }

  private void makeFolder(Path path) {
    if (!path.equals(folder) && !host.files().facts(path).exists()) {
      makeFolder(path.getParent());
      host.files().makeFolder(path, access);
    }
  }

  @Override
  public void close() {
    host.files().deleteTree(folder);
  }
}
